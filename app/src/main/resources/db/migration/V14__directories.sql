-- What systems call their people, lanes, lists and labels, as it was read last.
CREATE TABLE directory_name (
  system_id VARCHAR(64) NOT NULL,
  directory_id VARCHAR(64) NOT NULL,
  entry_key VARCHAR(256) NOT NULL,
  name VARCHAR(300) NOT NULL,
  place INT NOT NULL,
  -- What it was called before, and since when it is called otherwise.
  was VARCHAR(300),
  renamed_at TIMESTAMP(9) WITH TIME ZONE,
  -- Since when it is not there any more.
  gone_at TIMESTAMP(9) WITH TIME ZONE,
  PRIMARY KEY (system_id, directory_id, entry_key)
);
