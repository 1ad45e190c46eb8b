-- A task that was made though another that is open reads nearly the same, until a person says
-- whether both are one thing.
CREATE TABLE possible_duplicate (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  state VARCHAR(16) NOT NULL,
  -- The pair of the task, and the trace that makes it.
  bridge_id VARCHAR(64) NOT NULL,
  match_hash VARCHAR(64) NOT NULL,
  trace_seq BIGINT NOT NULL,
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  title VARCHAR(300) NOT NULL,
  -- The other: of a pair, or only told of; its record is known when it was looked at.
  other_bridge VARCHAR(64),
  other_hash VARCHAR(64),
  other_record VARCHAR(512),
  other_title VARCHAR(300) NOT NULL,
  score DOUBLE PRECISION NOT NULL,
  reasons VARCHAR(1000) NOT NULL,
  looks INT DEFAULT 0 NOT NULL,
  found_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  answered_at TIMESTAMP(9) WITH TIME ZONE,
  answered_by VARCHAR(128),
  -- Where the bridge waits: what the task is to hold, its match key as text, and which of several.
  waits BOOLEAN DEFAULT FALSE NOT NULL,
  fields BINARY LARGE OBJECT,
  match_text VARCHAR(1000),
  part VARCHAR(1000),
  -- The recall that takes the task back, where both are one.
  recall_id BIGINT
);
CREATE INDEX possible_duplicate_by_state ON possible_duplicate (state, id);
CREATE INDEX possible_duplicate_of_pair ON possible_duplicate (bridge_id, match_hash);
CREATE INDEX possible_duplicate_of_trace ON possible_duplicate (trace_seq);

-- The record that the pair has from then on; null where its task is only taken back.
ALTER TABLE recall_item ADD COLUMN joins VARCHAR(512);
