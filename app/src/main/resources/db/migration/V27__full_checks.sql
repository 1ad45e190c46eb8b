-- Both lists of a bridge that goes both ways, held against what was agreed.
CREATE TABLE full_check (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  state VARCHAR(16) NOT NULL,
  -- Counts its changes, so that of two that carry it on only one does.
  step INT NOT NULL,
  asked_by VARCHAR(128) NOT NULL,
  begun_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  ended_at TIMESTAMP(9) WITH TIME ZONE,
  -- How many pairs there were when it began.
  pairs INT NOT NULL,
  left_read INT NOT NULL,
  right_read INT NOT NULL,
  -- How many of those have no part in it.
  aside INT NOT NULL,
  -- How many stood out so far, those that were alike in the end among them.
  found INT NOT NULL,
  -- The next page of the list, or the pair after which it goes on; null for the first.
  place VARCHAR(4000),
  -- The fields that stand in a task and not in the list, with commas; null while that is not known.
  left_lacks VARCHAR(1000),
  right_lacks VARCHAR(1000),
  -- How often it went on in vain, one time after the other, and why.
  tries INT NOT NULL,
  problem VARCHAR(1000)
);
CREATE INDEX full_check_of_bridge ON full_check (bridge_id, id);
CREATE INDEX full_check_by_state ON full_check (state, id);

-- What stood out.
CREATE TABLE full_check_item (
  check_id BIGINT NOT NULL,
  number INT NOT NULL,
  state VARCHAR(16) NOT NULL,
  -- Null while it was not looked at.
  kind VARCHAR(16),
  -- Null where a task is in no pair.
  pair_hash VARCHAR(64),
  -- The side whose list lacks its task.
  missing VARCHAR(8),
  -- Where something is to be done, or the task is missing; null if on both.
  side VARCHAR(8),
  left_record VARCHAR(512),
  right_record VARCHAR(512),
  title VARCHAR(300) NOT NULL,
  -- The names of the fields, with commas.
  fields VARCHAR(1000) NOT NULL,
  words VARCHAR(2000) NOT NULL,
  -- What it tells by which it may be known on the other side, each on a line.
  tells VARCHAR(2000) NOT NULL,
  looks INT NOT NULL,
  -- The side that a person says is right as a whole; null if the bridge says what is.
  leads VARCHAR(8),
  trace_id VARCHAR(32),
  PRIMARY KEY (check_id, number),
  CONSTRAINT full_check_item_once UNIQUE (check_id, pair_hash)
);
CREATE INDEX full_check_item_by_state ON full_check_item (check_id, state, number);
CREATE INDEX full_check_item_by_kind ON full_check_item (check_id, kind, number);

-- What was met on a list while it is read.
CREATE TABLE full_check_seen (
  check_id BIGINT NOT NULL,
  side VARCHAR(8) NOT NULL,
  record VARCHAR(512) NOT NULL,
  PRIMARY KEY (check_id, side, record)
);
