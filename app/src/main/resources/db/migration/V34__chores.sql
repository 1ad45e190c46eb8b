-- The rows of which each comes round by itself, as they were told last; one that rests has no chore,
-- and says why.
CREATE TABLE chore (
  bridge_id VARCHAR(64) NOT NULL,
  record_id VARCHAR(512) NOT NULL,
  -- The event that said so, and when it was received.
  event_seq BIGINT NOT NULL,
  told_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  body VARBINARY(1048576) NOT NULL,
  chore VARCHAR(2000),
  rests VARCHAR(1000),
  since TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  handled TIMESTAMP(9) WITH TIME ZONE,
  looked TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  make_at TIMESTAMP(9) WITH TIME ZONE,
  due_at TIMESTAMP(9) WITH TIME ZONE,
  -- In which reading of all rows it was met last.
  reading INT NOT NULL,
  PRIMARY KEY (bridge_id, record_id)
);

CREATE INDEX chore_to_make ON chore (bridge_id, make_at);

-- Of each bridge over such rows: by which of its versions all rows were read, and how far that is.
CREATE TABLE chore_table (
  bridge_id VARCHAR(64) PRIMARY KEY,
  number INT NOT NULL,
  reading INT NOT NULL,
  -- Whether what is read is told to the bridge; else only what is gone is looked for.
  tells BOOLEAN NOT NULL,
  place VARCHAR(4000),
  through BOOLEAN NOT NULL,
  rows_read INT NOT NULL,
  next_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  tries INT NOT NULL,
  problem VARCHAR(2000),
  stopped VARCHAR(8)
);
