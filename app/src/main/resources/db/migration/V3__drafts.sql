CREATE TABLE bridge_draft (
  bridge_id VARCHAR(64) PRIMARY KEY,
  -- As it is being typed, whether or not it can be used.
  document VARCHAR(200000) NOT NULL,
  revision INT NOT NULL,
  changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
