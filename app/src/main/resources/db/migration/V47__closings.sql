-- In which order incidents closed: one that came long ago and closed just now stands first.
CREATE SEQUENCE closing_order;
ALTER TABLE incident ADD COLUMN closing BIGINT;
MERGE INTO incident USING (
  SELECT id, ROW_NUMBER() OVER (ORDER BY closed_at, id) AS place FROM incident WHERE state = 'CLOSED'
) AS closed ON incident.id = closed.id
WHEN MATCHED THEN UPDATE SET closing = closed.place;
ALTER SEQUENCE closing_order RESTART WITH (SELECT COALESCE(MAX(closing), 0) + 1 FROM incident);
CREATE INDEX incident_by_closing ON incident (state, closing);
