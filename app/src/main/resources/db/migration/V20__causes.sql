-- The trace that wrote to the task last, and how often it was written to since a moment.
ALTER TABLE pair ADD COLUMN trace_seq BIGINT;
ALTER TABLE pair ADD COLUMN often INT DEFAULT 0 NOT NULL;
ALTER TABLE pair ADD COLUMN often_since TIMESTAMP(9) WITH TIME ZONE;

-- Traces whose event was caused from here, with the trace that caused it.
CREATE TABLE trace_cause (
  trace_seq BIGINT PRIMARY KEY,
  cause_seq BIGINT NOT NULL,
  -- How many traces came before it, one caused by the other.
  depth INT NOT NULL,
  -- How many of those are of its own bridge.
  again INT NOT NULL
);
CREATE INDEX trace_cause_of ON trace_cause (cause_seq, trace_seq);

-- What a bridge received up to this trace was let go by a person, whatever caused it.
ALTER TABLE bridge ADD COLUMN let_through BIGINT DEFAULT 0 NOT NULL;
