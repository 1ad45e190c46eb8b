-- Events of a collection are counted and found by their kind without reading them.
CREATE INDEX event_of_kind ON event (system_id, collection_id, seq, kind, origin);
DROP INDEX event_of_collection;
