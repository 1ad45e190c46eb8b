-- Two tasks that are kept alike, with what each side stored when they last agreed.
CREATE TABLE synced_pair (
  bridge_id VARCHAR(64) NOT NULL,
  pair_hash VARCHAR(64) NOT NULL,
  pair_text VARCHAR(1000) NOT NULL,
  title VARCHAR(300) NOT NULL,
  left_record VARCHAR(512),
  right_record VARCHAR(512),
  agreed_left VARBINARY(1048576) NOT NULL,
  agreed_right VARBINARY(1048576) NOT NULL,
  -- What they agree on besides once what is under way is written, as JSON; null if nothing is.
  once_written VARBINARY(1048576),
  parted_at TIMESTAMP(9) WITH TIME ZONE,
  parted_because VARCHAR(1000),
  revision INT NOT NULL,
  made_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  -- The event and the trace by which both were looked at last.
  event_seq BIGINT NOT NULL,
  trace_seq BIGINT NOT NULL,
  PRIMARY KEY (bridge_id, pair_hash),
  -- No task is of two pairs of a bridge.
  CONSTRAINT synced_left UNIQUE (bridge_id, left_record),
  CONSTRAINT synced_right UNIQUE (bridge_id, right_record)
);

-- Fields on which both sides disagree until a person says what they are.
CREATE TABLE disagreement (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  pair_hash VARCHAR(64) NOT NULL,
  field VARCHAR(64) NOT NULL,
  because VARCHAR(1000) NOT NULL,
  -- What each side held when they agreed last, and what it holds now, as JSON.
  before_values VARBINARY(1048576) NOT NULL,
  now_values VARBINARY(1048576) NOT NULL,
  since TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  trace_seq BIGINT NOT NULL,
  -- What a person said, as JSON, until it is carried out.
  answer VARBINARY(1048576),
  answered_by VARCHAR(128),
  CONSTRAINT disagreement_once UNIQUE (bridge_id, pair_hash, field)
);

-- What is written to a side of such a pair, and the entity tag of what was read before.
CREATE TABLE synced_delivery (
  delivery_seq BIGINT PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  pair_hash VARCHAR(64) NOT NULL,
  side VARCHAR(8) NOT NULL,
  tag VARCHAR(1000)
);
