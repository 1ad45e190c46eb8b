-- Lookups among the events that came are answered by keys, not by reading what came with them.

CREATE TABLE event_index (
  id INT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  -- The addresses of the fields that are asked by, in their order, each on a line.
  fields VARCHAR(4000) NOT NULL,
  -- The order numbers of events that it covers: from the first on, up to before the second.
  from_seq BIGINT NOT NULL,
  to_seq BIGINT NOT NULL,
  CONSTRAINT event_index_once UNIQUE (system_id, collection_id, fields)
);

CREATE TABLE event_index_entry (
  index_id INT NOT NULL,
  -- Of the values of the fields; equal ones may have different values, which is looked at.
  hash BIGINT NOT NULL,
  event_seq BIGINT NOT NULL,
  PRIMARY KEY (index_id, hash, event_seq)
);
CREATE INDEX event_index_entry_of_event ON event_index_entry (event_seq);
