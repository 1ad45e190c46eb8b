-- When the last digest of incidents was told; null while none was.
ALTER TABLE alarm_plan ADD COLUMN digested_at TIMESTAMP(9) WITH TIME ZONE;
