-- A bridge that is retired receives and delivers nothing more; its past is kept.
ALTER TABLE bridge ADD COLUMN retired_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE bridge ADD COLUMN retired_because VARCHAR(500);
ALTER TABLE bridge ADD COLUMN retired_by VARCHAR(128);
