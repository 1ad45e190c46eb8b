-- How full systems were when they were looked at, at most once an hour.
CREATE TABLE quota_use (
  system_id VARCHAR(64) NOT NULL,
  at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  used BIGINT NOT NULL,
  most BIGINT NOT NULL,
  PRIMARY KEY (system_id, at)
);
