-- Failures of one bridge and kind that are sent again together: how far that is, and what came of it.
CREATE TABLE resend (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  kind VARCHAR(32) NOT NULL,
  until_seq BIGINT NOT NULL,
  done_seq BIGINT NOT NULL,
  total INT NOT NULL,
  sent INT NOT NULL,
  first_new BIGINT,
  last_new BIGINT,
  state VARCHAR(16) NOT NULL,
  problem VARCHAR(1000),
  asked_by VARCHAR(128) NOT NULL,
  begun_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  ended_at TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX resend_state ON resend (state);
