-- A bridge that hears many places listens to more than fitted before.
ALTER TABLE bridge_version ALTER COLUMN listens SET DATA TYPE VARCHAR(200000);

-- Of bridges that hear several places: from which of them a trace came.
CREATE TABLE trace_place (
  trace_seq BIGINT PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  received_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
CREATE INDEX trace_place_of ON trace_place (bridge_id, collection_id, received_at, trace_seq);

-- How many of their traces came to a verdict, by the half hour in which they were received, counted
-- from 1970; kept when the traces themselves are purged.
CREATE TABLE place_count (
  bridge_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  slot INT NOT NULL,
  verdict VARCHAR(10) NOT NULL,
  traces BIGINT NOT NULL,
  PRIMARY KEY (bridge_id, collection_id, slot, verdict)
);
CREATE INDEX place_count_of_slot ON place_count (bridge_id, slot);

-- How many effects of each kind came of a place, by the half hour in which they were decided.
CREATE TABLE place_effect (
  bridge_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  kind VARCHAR(16) NOT NULL,
  slot INT NOT NULL,
  effects BIGINT NOT NULL,
  PRIMARY KEY (bridge_id, slot, collection_id, kind)
);

-- By which what is older than anybody asks for is removed.
CREATE INDEX place_count_by_age ON place_count (slot);
CREATE INDEX place_effect_by_age ON place_effect (slot);
