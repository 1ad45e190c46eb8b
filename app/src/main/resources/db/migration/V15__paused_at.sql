-- When a wait was written down. A wait that was written later than now was written by a clock that
-- was ahead: it is over, however far away its end seems.
ALTER TABLE trace_work ADD COLUMN paused_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE delivery_work ADD COLUMN paused_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE poll ADD COLUMN rested_at TIMESTAMP(9) WITH TIME ZONE;
