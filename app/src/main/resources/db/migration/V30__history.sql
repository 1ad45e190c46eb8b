-- What became of the fields of a pair, trace by trace.
CREATE TABLE synced_step (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  pair_hash VARCHAR(64) NOT NULL,
  trace_seq BIGINT NOT NULL,
  at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  -- As JSON.
  fields VARBINARY(1048576) NOT NULL
);
CREATE INDEX synced_step_of_pair ON synced_step (bridge_id, pair_hash, id);
CREATE INDEX synced_step_of_trace ON synced_step (trace_seq);
