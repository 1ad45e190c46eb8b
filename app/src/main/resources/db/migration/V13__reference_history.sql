-- What reference tables and calendars were after each change, the newest of each kept.
CREATE SEQUENCE reference_order;
CREATE TABLE reference_change (
  seq BIGINT PRIMARY KEY,
  kind VARCHAR(8) NOT NULL,
  reference_id VARCHAR(64) NOT NULL,
  made_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  made_by VARCHAR(128) NOT NULL,
  what VARCHAR(1000) NOT NULL,
  document VARCHAR(200000) NOT NULL,
  -- The rows of a table as CSV; empty for a calendar.
  rows_csv VARCHAR(16000000) NOT NULL
);
CREATE INDEX change_of_reference ON reference_change (kind, reference_id, seq);
