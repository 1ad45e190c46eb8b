-- Up to which moment the times were looked at of each bridge that begins by itself, by which of its
-- versions, and why nobody looks just now.
CREATE TABLE timetable (
  bridge_id VARCHAR(64) PRIMARY KEY,
  number INT NOT NULL,
  handled TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  stopped VARCHAR(8)
);
