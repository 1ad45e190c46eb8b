-- Bridges that were made as copies of others, and the original as each followed it last.
CREATE TABLE bridge_copy (
  bridge_id VARCHAR(64) PRIMARY KEY,
  original_id VARCHAR(64) NOT NULL,
  -- As JSON, in the order of a bridge document.
  base VARCHAR(200000) NOT NULL,
  followed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  followed_by VARCHAR(128) NOT NULL
);
CREATE INDEX bridge_copy_of ON bridge_copy (original_id, bridge_id);
