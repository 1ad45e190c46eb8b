-- What was to be done when it failed; null if something was read or decided.
ALTER TABLE failure ADD COLUMN effect VARCHAR(16);

-- The incident that a failure belongs to, as core.incident.IncidentKey writes it.
ALTER TABLE attention ADD COLUMN cause VARCHAR(128) DEFAULT '' NOT NULL;
UPDATE attention a SET cause = COALESCE((
  SELECT CASE
    WHEN f.system_id <> ''
      AND f.kind IN ('RATE_LIMITED', 'QUOTA_FULL', 'NOT_ALLOWED', 'NOT_SIGNED_IN')
      THEN 'REFUSED/' || f.system_id
    WHEN f.system_id <> '' AND f.kind IN ('UNREACHABLE', 'ANSWER_UNKNOWN')
      THEN 'AWAY/' || f.system_id
    ELSE 'ALIKE/' || f.signature END
  FROM failure f WHERE f.trace_seq = a.trace_seq AND f.place = 0), 'ALIKE/' || a.signature);
CREATE INDEX attention_of_cause ON attention (cause, queue_id, trace_seq);

-- How many traces failed of a cause, by the half hour in which they failed, counted from 1970.
CREATE TABLE failure_count (
  cause VARCHAR(128) NOT NULL,
  bridge_id VARCHAR(64) NOT NULL,
  slot INT NOT NULL,
  failures BIGINT NOT NULL,
  PRIMARY KEY (cause, bridge_id, slot)
);
INSERT INTO failure_count
  SELECT cause, queue_id, CAST(FLOOR(EXTRACT(EPOCH FROM since) / 1800) AS INT) AS slot, COUNT(*)
  FROM attention GROUP BY cause, queue_id, slot;

-- Many failures or alarms with one cause. What was found is what evidence came to, as JSON.
CREATE TABLE incident (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  cause VARCHAR(128) NOT NULL,
  state VARCHAR(16) NOT NULL,
  opened_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  came_back INT NOT NULL,
  headline VARCHAR(300) NOT NULL,
  waiting INT NOT NULL,
  bridges VARCHAR(2000) NOT NULL,
  found CHARACTER LARGE OBJECT NOT NULL,
  mended_by VARCHAR(128),
  mending_since TIMESTAMP(9) WITH TIME ZONE,
  closed_at TIMESTAMP(9) WITH TIME ZONE,
  -- Of how many of its openings people were told.
  told INT DEFAULT 0 NOT NULL
);
CREATE INDEX incident_of_cause ON incident (cause, id);
CREATE INDEX incident_by_state ON incident (state, id);

-- What happened about an incident, in order.
CREATE TABLE incident_line (
  incident_id BIGINT NOT NULL,
  place INT NOT NULL,
  at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  by_whom VARCHAR(128) NOT NULL,
  text VARCHAR(1000) NOT NULL,
  PRIMARY KEY (incident_id, place)
);

-- Who is told of incidents, as a document; one row at most.
CREATE TABLE alarm_plan (
  id INT PRIMARY KEY,
  document VARCHAR(20000) NOT NULL,
  changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  changed_by VARCHAR(128) NOT NULL
);

-- What waits is sent again by incident, whatever bridges it is of.
UPDATE resend SET state = 'STOPPED', ended_at = begun_at WHERE state = 'RUNNING';
ALTER TABLE resend ADD COLUMN incident_id BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE resend ADD COLUMN cause VARCHAR(128) DEFAULT '' NOT NULL;
ALTER TABLE resend ADD COLUMN title VARCHAR(300) DEFAULT '' NOT NULL;
UPDATE resend SET title = bridge_id;
ALTER TABLE resend DROP COLUMN bridge_id;
ALTER TABLE resend DROP COLUMN kind;
