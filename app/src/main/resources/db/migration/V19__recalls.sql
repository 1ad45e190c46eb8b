-- What was sent again of an incident is found by it.
CREATE INDEX resend_of_incident ON resend (incident_id);

-- Its task was taken back, and nothing that comes later makes it again.
ALTER TABLE pair ADD COLUMN taken_back BOOLEAN DEFAULT FALSE NOT NULL;

-- What bridges made in a span and is taken back, or may be.
CREATE TABLE recall (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  state VARCHAR(16) NOT NULL,
  -- The ids of the bridges whose work it is, with commas.
  bridges VARCHAR(2000) NOT NULL,
  version INT,
  -- The trace, where it is of one alone.
  trace_id VARCHAR(32),
  incident_id BIGINT,
  from_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  until_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  asked_by VARCHAR(128) NOT NULL,
  listed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  begun_at TIMESTAMP(9) WITH TIME ZONE,
  ended_at TIMESTAMP(9) WITH TIME ZONE,
  problem VARCHAR(1000)
);
CREATE INDEX recall_by_state ON recall (state, id);
CREATE INDEX recall_of_incident ON recall (incident_id, id);

-- Each record of it.
CREATE TABLE recall_item (
  recall_id BIGINT NOT NULL,
  -- The delivery that made it.
  delivery_seq BIGINT NOT NULL,
  trace_seq BIGINT NOT NULL,
  trace_id VARCHAR(32) NOT NULL,
  title VARCHAR(300) NOT NULL,
  bridge_id VARCHAR(64) NOT NULL,
  match_hash VARCHAR(64) NOT NULL,
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  record_id VARCHAR(512) NOT NULL,
  idempotency_key VARCHAR(64) NOT NULL,
  kind VARCHAR(8) NOT NULL,
  under BOOLEAN NOT NULL,
  made_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  changes INT NOT NULL,
  way VARCHAR(16) NOT NULL,
  state VARCHAR(16) NOT NULL,
  -- What a look at it came to; null while nobody looked.
  looked VARCHAR(16),
  -- Whether it goes.
  chosen BOOLEAN NOT NULL,
  -- Whether it goes even if somebody changed it.
  even_if_changed BOOLEAN NOT NULL,
  words VARCHAR(1000) NOT NULL,
  -- The delivery that takes it back.
  removal BIGINT,
  PRIMARY KEY (recall_id, delivery_seq)
);
CREATE INDEX recall_item_by_state ON recall_item (recall_id, state, delivery_seq);
CREATE INDEX recall_item_of_trace ON recall_item (recall_id, trace_seq);
CREATE INDEX recall_item_removal ON recall_item (removal);

-- Circles that a person said yes to when the version went live, of which nobody can tell whether
-- they come to an end; each on a line.
ALTER TABLE bridge_version ADD COLUMN loops_yes VARCHAR(4000);
