-- Tasks of which a person said that they are two, though they may be the same.
CREATE TABLE told_apart (
  bridge_id VARCHAR(64) NOT NULL,
  left_record VARCHAR(512) NOT NULL,
  right_record VARCHAR(512) NOT NULL,
  told_by VARCHAR(128) NOT NULL,
  told_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  PRIMARY KEY (bridge_id, left_record, right_record)
);
