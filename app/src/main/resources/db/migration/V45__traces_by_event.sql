-- What became of the events of a span is told without reading the traces themselves.
CREATE INDEX trace_by_event ON trace (event_seq, bridge_id, verdict, is_try, seq);
DROP INDEX trace_of_event;
