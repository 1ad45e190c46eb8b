-- Spans of time of which nothing is known here, since the data was restored from a copy.
CREATE TABLE gap (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  -- What the restoring is called by, so that it is taken down once.
  mark VARCHAR(64) NOT NULL UNIQUE,
  from_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  until_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  -- The newest event of the copy; 0 if it has none.
  newest_event BIGINT NOT NULL,
  -- Whether its places are taken down and its checks begun.
  begun BOOLEAN NOT NULL,
  seen_at TIMESTAMP(9) WITH TIME ZONE,
  seen_by VARCHAR(128)
);

-- Where events come from that may have been received meanwhile.
CREATE TABLE gap_place (
  gap_id BIGINT NOT NULL,
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  way VARCHAR(8) NOT NULL,
  -- Up to which event of ours it was read again; null until it was.
  read_until BIGINT,
  PRIMARY KEY (gap_id, system_id, collection_id)
);

-- The bridges that go both ways, whose pairs are checked.
CREATE TABLE gap_check (
  gap_id BIGINT NOT NULL,
  bridge_id VARCHAR(64) NOT NULL,
  begun BOOLEAN NOT NULL,
  PRIMARY KEY (gap_id, bridge_id)
);
