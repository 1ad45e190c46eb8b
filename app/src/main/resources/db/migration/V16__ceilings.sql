-- How many effects of each kind a bridge had, by the half hour in which they were decided, counted
-- from 1970; kept when their traces are purged.
CREATE TABLE effect_count (
  bridge_id VARCHAR(64) NOT NULL,
  kind VARCHAR(16) NOT NULL,
  slot INT NOT NULL,
  effects BIGINT NOT NULL,
  PRIMARY KEY (bridge_id, kind, slot)
);
INSERT INTO effect_count
  SELECT bridge_id, kind, slot, COUNT(*) FROM (
    SELECT t.bridge_id, d.kind,
      CAST(FLOOR(EXTRACT(EPOCH FROM t.received_at) / 1800) AS INT) AS slot
    FROM trace t JOIN delivery d ON d.trace_seq = t.seq
    WHERE NOT t.is_try AND d.kind IN ('CREATE', 'CHANGE', 'MESSAGE'))
  GROUP BY bridge_id, kind, slot;

-- What counts against a bridge's ceiling, by the grain of steady time in which it was decided, with
-- the moment of the last of it: in milliseconds that go by while the application runs, whatever a
-- clock says.
CREATE TABLE ceiling_use (
  bridge_id VARCHAR(64) NOT NULL,
  kind VARCHAR(16) NOT NULL,
  grain BIGINT NOT NULL,
  newest BIGINT NOT NULL,
  effects BIGINT NOT NULL,
  PRIMARY KEY (bridge_id, kind, grain)
);

-- The busy times that a version's ceiling was reckoned from when it went live.
ALTER TABLE bridge_version ADD COLUMN busy VARCHAR(400);
