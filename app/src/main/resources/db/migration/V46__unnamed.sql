-- Tasks of pairs that are kept alike which may have been made, though no answer said so: whatever is told of there may be
-- one of them. There are few at a time.
CREATE TABLE synced_unnamed (
  bridge_id VARCHAR(64) NOT NULL,
  side VARCHAR(8) NOT NULL,
  pair_hash VARCHAR(64) NOT NULL,
  -- What it was to hold, by the keys of its fields.
  fields VARBINARY(1048576) NOT NULL,
  delivery_seq BIGINT NOT NULL,
  PRIMARY KEY (bridge_id, side, pair_hash)
);
