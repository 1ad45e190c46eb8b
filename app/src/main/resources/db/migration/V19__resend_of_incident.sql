-- What was sent again of an incident is found by it.
CREATE INDEX resend_of_incident ON resend (incident_id);
