CREATE TABLE reference_table (
  id VARCHAR(64) PRIMARY KEY,
  document VARCHAR(200000) NOT NULL,
  -- The rows as CSV; the document says what the columns hold.
  rows_csv VARCHAR(16000000) NOT NULL,
  changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

-- How often each key was asked for, found or not; the keys joined by a line end.
CREATE TABLE reference_use (
  table_id VARCHAR(64) NOT NULL,
  asked VARCHAR(1000) NOT NULL,
  found BOOLEAN NOT NULL,
  times BIGINT NOT NULL,
  last_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  PRIMARY KEY (table_id, asked, found)
);

CREATE TABLE working_calendar (
  id VARCHAR(64) PRIMARY KEY,
  document VARCHAR(200000) NOT NULL,
  changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);

-- A task under a parent waits for the parent's pair, and keeps the parent's id in a field.
ALTER TABLE delivery ADD COLUMN waits_for VARCHAR(64);
ALTER TABLE delivery ADD COLUMN parent_field VARCHAR(256);

-- What the target said it stores, so that a later change by someone else is noticed.
ALTER TABLE pair ADD COLUMN stored VARCHAR(1000000) DEFAULT '{}' NOT NULL;

CREATE INDEX event_of_record ON event (system_id, collection_id, record_id, received_at);
CREATE INDEX event_of_collection ON event (system_id, collection_id, received_at);
