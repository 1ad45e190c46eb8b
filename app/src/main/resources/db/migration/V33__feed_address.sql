-- The secret in the address of the calendar of what is to come; one, or none.
CREATE TABLE feed_address (
  name VARCHAR(16) PRIMARY KEY,
  secret VARCHAR(64) NOT NULL,
  made_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
