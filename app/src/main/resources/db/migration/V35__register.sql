-- What people say of a bridge that its document does not: whose it is, and how sound they judge it.
CREATE TABLE bridge_card (
  bridge_id VARCHAR(64) PRIMARY KEY REFERENCES bridge (id),
  owner VARCHAR(200) NOT NULL,
  stand_in VARCHAR(200) NOT NULL,
  department VARCHAR(200) NOT NULL,
  -- Null while nobody said.
  judged VARCHAR(16),
  revision INT NOT NULL,
  changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  changed_by VARCHAR(128) NOT NULL
);

-- Views of the register by name: what its address says behind the question mark.
CREATE TABLE register_view (
  name VARCHAR(100) PRIMARY KEY,
  query VARCHAR(2000) NOT NULL,
  made_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  made_by VARCHAR(128) NOT NULL
);
