-- Events get an order number from intake, traces and deliveries part into what happened and what is
-- still to be done, and stories stand in a table of their own.

CREATE SEQUENCE event_order;

CREATE TABLE event_kept (
  -- What is earlier, whatever any clock says.
  seq BIGINT PRIMARY KEY,
  system_id VARCHAR(64) NOT NULL,
  source_id VARCHAR(256) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  kind VARCHAR(128) NOT NULL,
  record_id VARCHAR(512) NOT NULL,
  happened_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  received_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  origin VARCHAR(8) NOT NULL,
  body VARBINARY(1048576) NOT NULL,
  -- The sender's id makes a redelivery the same event.
  CONSTRAINT event_once_only UNIQUE (system_id, source_id)
);
INSERT INTO event_kept
  SELECT ROW_NUMBER() OVER (ORDER BY received_at, id), system_id, source_id, collection_id, kind,
    record_id, happened_at, received_at, CASE WHEN made_up THEN 'MADE_UP' ELSE 'TOLD' END, body
  FROM event ORDER BY received_at, id;
ALTER SEQUENCE event_order RESTART WITH (SELECT COALESCE(MAX(seq), 0) + 1 FROM event_kept);

CREATE SEQUENCE trace_order;

CREATE TABLE trace_kept (
  seq BIGINT PRIMARY KEY,
  id VARCHAR(32) NOT NULL,
  event_seq BIGINT NOT NULL,
  bridge_id VARCHAR(64) NOT NULL,
  bridge_version INT,
  order_key VARCHAR(640) NOT NULL,
  -- Null while it is under way.
  verdict VARCHAR(10),
  tries INT NOT NULL,
  received_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  finished_at TIMESTAMP(9) WITH TIME ZONE,
  title VARCHAR(300),
  match_text VARCHAR(1000),
  match_hash VARCHAR(64),
  target_record VARCHAR(512),
  failure_kind VARCHAR(32),
  reason VARCHAR(2000),
  resend_of VARCHAR(32),
  resent_as VARCHAR(32),
  is_try BOOLEAN NOT NULL,
  taken_back_at TIMESTAMP(9) WITH TIME ZONE
);
INSERT INTO trace_kept
  SELECT t.seq, t.id, e.seq, t.bridge_id, t.bridge_version, t.order_key,
    CASE t.state WHEN 'done' THEN UPPER(REPLACE(t.verdict, '-', '_')) END, t.tries, t.received_at,
    CASE t.state WHEN 'done' THEN t.finished_at END, t.title, t.match_text, t.match_hash,
    t.target_record, UPPER(REPLACE(t.failure_kind, '-', '_')), t.reason, t.resend_of, NULL,
    t.try_document IS NOT NULL, t.taken_back_at
  FROM trace t JOIN event o ON o.id = t.event_id
    JOIN event_kept e ON e.system_id = o.system_id AND e.source_id = o.source_id;
ALTER SEQUENCE trace_order RESTART WITH (SELECT COALESCE(MAX(seq), 0) + 1 FROM trace_kept);
UPDATE trace_kept SET resent_as = (
  SELECT MAX(n.id) FROM trace n WHERE n.resend_of = trace_kept.id)
  WHERE id IN (SELECT resend_of FROM trace WHERE resend_of IS NOT NULL);

-- The draft that carries a try.
CREATE TABLE trace_try (
  trace_seq BIGINT PRIMARY KEY,
  document VARCHAR(200000) NOT NULL
);
INSERT INTO trace_try SELECT seq, try_document FROM trace WHERE try_document IS NOT NULL;

-- What is still to be done about traces that are under way; nothing of those that ended.
CREATE TABLE trace_work (
  trace_seq BIGINT PRIMARY KEY,
  -- Pieces of one queue may be held together: those of a bridge, or those of tries.
  queue_id VARCHAR(64) NOT NULL,
  order_key VARCHAR(640) NOT NULL,
  state VARCHAR(16) NOT NULL,
  -- What it comes to if all its deliveries are made.
  verdict VARCHAR(10),
  -- Whether one of its deliveries failed.
  failed BOOLEAN DEFAULT FALSE NOT NULL,
  tries INT NOT NULL,
  -- How often its work broke through a fault of ours.
  breaks INT NOT NULL,
  not_before TIMESTAMP(9) WITH TIME ZONE,
  -- The hash of the match key of a pair whose delivery must end first.
  awaits VARCHAR(64),
  claim VARCHAR(48),
  claimed_until TIMESTAMP(9) WITH TIME ZONE
);
INSERT INTO trace_work
  SELECT seq, CASE WHEN try_document IS NULL THEN bridge_id ELSE 'tries/' END, order_key,
    CASE state WHEN 'delivering' THEN 'DELIVERING' ELSE 'READY' END,
    UPPER(REPLACE(verdict, '-', '_')),
    EXISTS (SELECT 1 FROM delivery d WHERE d.trace_id = trace.id AND d.state = 'failed'),
    tries, 0, NULL, NULL, NULL, NULL
  FROM trace WHERE state <> 'done';
UPDATE trace_work SET state = 'BEHIND' WHERE state = 'READY' AND EXISTS (
  SELECT 1 FROM trace_work e WHERE e.queue_id = trace_work.queue_id
    AND e.order_key = trace_work.order_key AND e.trace_seq < trace_work.trace_seq);
CREATE INDEX trace_work_ready ON trace_work (queue_id, state, trace_seq);
CREATE INDEX trace_work_order ON trace_work (queue_id, order_key, trace_seq);
CREATE INDEX trace_work_until ON trace_work (state, not_before);

-- A story is told in parts, each written once.
CREATE SEQUENCE story_order;

CREATE TABLE story (
  trace_seq BIGINT NOT NULL,
  -- In which order the parts were told; 0 for one that stands before all others.
  part BIGINT NOT NULL,
  told VARBINARY(4194304) NOT NULL,
  PRIMARY KEY (trace_seq, part)
);
INSERT INTO story SELECT seq, 0, story FROM trace;

-- Failures as data, all of a trace's.
CREATE TABLE failure (
  trace_seq BIGINT NOT NULL,
  place INT NOT NULL,
  kind VARCHAR(32) NOT NULL,
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  field VARCHAR(300) NOT NULL,
  code VARCHAR(64) NOT NULL,
  message VARCHAR(2000) NOT NULL,
  remedy VARCHAR(1000) NOT NULL,
  -- The same for failures of one cause.
  signature VARCHAR(32) NOT NULL,
  PRIMARY KEY (trace_seq, place)
);
-- What was known of earlier failures, also of those whose trace is still under way.
INSERT INTO failure
  SELECT t.seq, 0, COALESCE(t.failure_kind, 'BROKE_HERE'), '', '', '', '',
    COALESCE(TRIM(TRAILING '.' FROM t.reason), 'One of its deliveries failed'), '', ''
  FROM trace_kept t LEFT JOIN trace_work w ON w.trace_seq = t.seq
  WHERE t.verdict = 'FAILED' OR w.failed;

-- Failures that wait for a person: not sent again, and nothing of the record came across since.
CREATE TABLE attention (
  trace_seq BIGINT PRIMARY KEY,
  queue_id VARCHAR(64) NOT NULL,
  order_key VARCHAR(640) NOT NULL,
  kind VARCHAR(32) NOT NULL,
  signature VARCHAR(32) NOT NULL,
  reason VARCHAR(2000) NOT NULL,
  since TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
INSERT INTO attention
  SELECT t.seq, t.bridge_id, t.order_key, COALESCE(t.failure_kind, 'BROKE_HERE'), '',
    COALESCE(t.reason, ''), t.received_at
  FROM trace_kept t WHERE t.verdict = 'FAILED' AND t.resent_as IS NULL AND NOT t.is_try
    AND NOT EXISTS (SELECT 1 FROM trace_kept l WHERE l.bridge_id = t.bridge_id
      AND l.order_key = t.order_key AND l.seq > t.seq AND l.verdict <> 'FAILED');
CREATE INDEX attention_of_record ON attention (queue_id, order_key);

-- How many traces came to a verdict, by the half hour in which they were received, counted from
-- 1970; kept when the traces themselves are purged.
CREATE TABLE trace_count (
  bridge_id VARCHAR(64) NOT NULL,
  slot INT NOT NULL,
  verdict VARCHAR(10) NOT NULL,
  traces BIGINT NOT NULL,
  worst_millis BIGINT NOT NULL,
  PRIMARY KEY (bridge_id, slot, verdict)
);
INSERT INTO trace_count
  SELECT bridge_id, slot, verdict, COUNT(*), MAX(millis) FROM (
    SELECT bridge_id, CAST(FLOOR(EXTRACT(EPOCH FROM received_at) / 1800) AS INT) AS slot, verdict,
      TIMESTAMPDIFF(MILLISECOND, received_at, finished_at) AS millis
    FROM trace_kept WHERE verdict IS NOT NULL AND NOT is_try)
  GROUP BY bridge_id, slot, verdict;

-- The words of traces whose values stand in no segment yet.
CREATE TABLE seen_words (
  trace_seq BIGINT PRIMARY KEY,
  words VARCHAR(8000) NOT NULL
);
INSERT INTO seen_words SELECT seq, search_text FROM trace;

-- Segments of the index of values that were seen.
CREATE TABLE seen_segment (
  id BIGINT GENERATED BY DEFAULT AS IDENTITY PRIMARY KEY,
  first_seq BIGINT NOT NULL,
  last_seq BIGINT NOT NULL,
  members VARBINARY(1048576) NOT NULL
);
CREATE TABLE seen_page (
  segment_id BIGINT NOT NULL,
  bucket INT NOT NULL,
  entries VARBINARY(4194304) NOT NULL,
  PRIMARY KEY (segment_id, bucket)
);

CREATE SEQUENCE delivery_order;

CREATE TABLE delivery_kept (
  seq BIGINT PRIMARY KEY,
  trace_seq BIGINT NOT NULL,
  bridge_id VARCHAR(64) NOT NULL,
  match_hash VARCHAR(64) NOT NULL,
  system_id VARCHAR(64) NOT NULL,
  collection_id VARCHAR(64) NOT NULL,
  idempotency_key VARCHAR(64) NOT NULL,
  kind VARCHAR(8) NOT NULL,
  record_id VARCHAR(512),
  fields VARBINARY(1048576) NOT NULL,
  parent_field VARCHAR(256),
  result VARCHAR(8) NOT NULL,
  -- When the effect was made.
  made_at TIMESTAMP(9) WITH TIME ZONE
);
INSERT INTO delivery_kept
  SELECT d.seq, t.seq, d.bridge_id, d.match_hash, d.system_id, d.collection_id, d.idempotency_key,
    CASE WHEN d.creates THEN 'CREATE' ELSE 'CHANGE' END, d.record_id, d.fields, d.parent_field,
    CASE d.state WHEN 'done' THEN 'MADE' WHEN 'failed' THEN 'FAILED' ELSE 'OPEN' END,
    CASE d.state WHEN 'done' THEN t.finished_at END
  FROM delivery d JOIN trace t ON t.id = d.trace_id;
ALTER SEQUENCE delivery_order RESTART WITH (SELECT COALESCE(MAX(seq), 0) + 1 FROM delivery_kept);

CREATE TABLE delivery_work (
  delivery_seq BIGINT PRIMARY KEY,
  trace_seq BIGINT NOT NULL,
  system_id VARCHAR(64) NOT NULL,
  queue_id VARCHAR(64) NOT NULL,
  bridge_id VARCHAR(64) NOT NULL,
  match_hash VARCHAR(64) NOT NULL,
  state VARCHAR(16) NOT NULL,
  tries INT NOT NULL,
  breaks INT NOT NULL,
  not_before TIMESTAMP(9) WITH TIME ZONE,
  -- Since when nobody knows whether an earlier try made it; null if there is no doubt.
  doubt_since TIMESTAMP(9) WITH TIME ZONE,
  -- How often it was looked for since.
  looks INT NOT NULL,
  -- The hash of the match key of the parent that must be made first.
  waits_for VARCHAR(64),
  claim VARCHAR(48),
  claimed_until TIMESTAMP(9) WITH TIME ZONE
);
INSERT INTO delivery_work
  SELECT d.seq, t.seq, d.system_id, CASE WHEN t.try_document IS NULL THEN d.bridge_id ELSE 'tries/' END,
    d.bridge_id, d.match_hash,
    CASE d.state WHEN 'waiting' THEN 'AWAITING_PARENT' ELSE 'READY' END, d.tries, 0, NULL,
    CASE WHEN d.uncertain OR d.state = 'sending' THEN CURRENT_TIMESTAMP END, 0, d.waits_for, NULL, NULL
  FROM delivery d JOIN trace t ON t.id = d.trace_id
  WHERE d.state IN ('waiting', 'ready', 'sending');
CREATE INDEX delivery_work_ready ON delivery_work (system_id, queue_id, state, delivery_seq);
CREATE INDEX delivery_work_pair ON delivery_work (bridge_id, match_hash);
CREATE INDEX delivery_work_parent ON delivery_work (bridge_id, waits_for);
CREATE INDEX delivery_work_until ON delivery_work (state, not_before);
CREATE INDEX delivery_work_trace ON delivery_work (trace_seq);

DROP TABLE delivery;
DROP TABLE trace;
DROP TABLE event;
ALTER TABLE event_kept RENAME TO event;
ALTER TABLE trace_kept RENAME TO trace;
ALTER TABLE delivery_kept RENAME TO delivery;

CREATE INDEX event_received ON event (received_at);
CREATE INDEX event_of_record ON event (system_id, collection_id, record_id, seq);
CREATE INDEX event_of_collection ON event (system_id, collection_id, seq);
CREATE UNIQUE INDEX trace_id ON trace (id);
CREATE INDEX trace_of_event ON trace (event_seq);
CREATE INDEX trace_received ON trace (received_at, seq);
CREATE INDEX trace_of_bridge ON trace (bridge_id, received_at, seq);
CREATE INDEX trace_of_verdict ON trace (verdict, received_at, seq);
CREATE INDEX trace_of_both ON trace (bridge_id, verdict, received_at, seq);
CREATE INDEX delivery_of_trace ON delivery (trace_seq, seq);

-- From which event a pair has what it holds, so that nothing older is written over it.
ALTER TABLE pair ADD COLUMN event_seq BIGINT DEFAULT 0 NOT NULL;
-- Since when nobody knows whether its task was made.
ALTER TABLE pair ADD COLUMN doubt_since TIMESTAMP(9) WITH TIME ZONE;

-- What a bridge listens to, readable when its document is not.
ALTER TABLE bridge_version ADD COLUMN listens VARCHAR(2000) DEFAULT '' NOT NULL;

-- Who made a change, for all that people can change.
ALTER TABLE bridge_version ADD COLUMN made_by VARCHAR(128) DEFAULT 'person' NOT NULL;
ALTER TABLE bridge ADD COLUMN held_by VARCHAR(128);
ALTER TABLE trace ADD COLUMN asked_by VARCHAR(128);

-- A collection that is polled is claimed by a lease, like all other work.
ALTER TABLE poll ADD COLUMN claim VARCHAR(48);
ALTER TABLE poll ADD COLUMN claimed_until TIMESTAMP(9) WITH TIME ZONE;
-- Somebody asked for it to be read while it was read.
ALTER TABLE poll ADD COLUMN again BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE poll ADD COLUMN problem_since TIMESTAMP(9) WITH TIME ZONE;
UPDATE poll SET state = UPPER(state);
UPDATE poll SET state = 'IDLE', next_at = CURRENT_TIMESTAMP WHERE state = 'READING';
