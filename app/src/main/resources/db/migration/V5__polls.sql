-- How far each collection that is asked for changes has been followed.
CREATE TABLE poll (
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  -- What stood there before is not told.
  begun_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  since VARCHAR(2000),
  page VARCHAR(4000),
  newest TIMESTAMP(9) WITH TIME ZONE,
  mark VARCHAR(2000),
  pages INT NOT NULL,
  fresh INT NOT NULL,
  -- idle or reading
  state VARCHAR(10) NOT NULL,
  next_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  tries INT NOT NULL,
  asked_at TIMESTAMP(9) WITH TIME ZONE,
  problem VARCHAR(2000),
  PRIMARY KEY (system_id, collection_id)
);
