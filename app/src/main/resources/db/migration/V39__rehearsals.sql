-- What was decided of an event, task by task, and what its lookups found; as JSON, or as gzipped JSON.
CREATE TABLE decided (
  trace_seq BIGINT PRIMARY KEY,
  outcome VARBINARY(4194304) NOT NULL,
  answers VARBINARY(4194304)
);

-- A bridge over events of the past, with no effect.
CREATE TABLE rehearsal (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  -- Null for a draft.
  version INT,
  document VARCHAR(200000) NOT NULL,
  answers VARCHAR(8) NOT NULL,
  since TIMESTAMP(9) WITH TIME ZONE,
  until TIMESTAMP(9) WITH TIME ZONE,
  most INT NOT NULL,
  state VARCHAR(8) NOT NULL,
  -- Null until they are counted.
  total INT,
  done INT NOT NULL,
  differing INT NOT NULL,
  -- As JSON.
  tally VARCHAR(1000000) NOT NULL,
  -- Between which the events came.
  first_at TIMESTAMP(9) WITH TIME ZONE,
  last_at TIMESTAMP(9) WITH TIME ZONE,
  problem VARCHAR(1000),
  begun_by VARCHAR(128) NOT NULL,
  begun_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  ended_at TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX rehearsal_of_bridge ON rehearsal (bridge_id, id);
CREATE INDEX rehearsal_in_state ON rehearsal (state, id);

CREATE TABLE rehearsal_difference (
  rehearsal_id BIGINT NOT NULL,
  number INT NOT NULL,
  event_seq BIGINT NOT NULL,
  record_id VARCHAR(512) NOT NULL,
  received_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  -- The trace of then; null if the bridge did not hear it.
  trace_id VARCHAR(32),
  title VARCHAR(300) NOT NULL,
  then_verdict VARCHAR(10),
  now_verdict VARCHAR(10) NOT NULL,
  then_because VARCHAR(2000) NOT NULL,
  now_because VARCHAR(2000) NOT NULL,
  -- The names of the fields that differ, each in bars.
  field_names VARCHAR(100000) NOT NULL,
  -- As JSON, or as gzipped JSON.
  fields VARBINARY(4194304) NOT NULL,
  PRIMARY KEY (rehearsal_id, number)
);

-- What was asked for a rehearsal that is under way, so that one that goes on after a restart asks it once.
CREATE TABLE rehearsal_answer (
  rehearsal_id BIGINT NOT NULL,
  question VARCHAR(64) NOT NULL,
  answer VARBINARY(4194304) NOT NULL,
  PRIMARY KEY (rehearsal_id, question)
);
