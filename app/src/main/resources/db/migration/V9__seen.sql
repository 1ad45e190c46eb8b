-- What was met of a collection before, item by item: no cursor grows with what it watches.

CREATE TABLE seen_item (
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  item VARCHAR(4000) NOT NULL,
  state VARCHAR(1000) NOT NULL,
  -- Under which name it was set aside; null if it could be read.
  aside VARCHAR(512),
  PRIMARY KEY (system_id, collection_id, item)
);
