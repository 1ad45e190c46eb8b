-- The version of its bridge that carries a trace, where that is not the live one.
CREATE TABLE trace_version (
  trace_seq BIGINT PRIMARY KEY,
  number INT NOT NULL
);

-- What a person chose is sent again together too, of no incident.
ALTER TABLE resend ALTER COLUMN incident_id DROP DEFAULT;
ALTER TABLE resend ALTER COLUMN incident_id DROP NOT NULL;
ALTER TABLE resend ALTER COLUMN cause DROP DEFAULT;
ALTER TABLE resend ALTER COLUMN cause DROP NOT NULL;
ALTER TABLE resend ADD COLUMN rules VARCHAR(16) DEFAULT 'LIVE' NOT NULL;
CREATE TABLE resend_item (
  resend_id BIGINT NOT NULL,
  trace_seq BIGINT NOT NULL,
  PRIMARY KEY (resend_id, trace_seq)
);

-- What the fields that a delivery changes held before, as far as that is known.
ALTER TABLE delivery ADD COLUMN held_before VARBINARY(1048576);

-- What a record that was there before holds again, field by field; null where none is put back.
ALTER TABLE recall_item ADD COLUMN puts VARBINARY(1048576);
