-- What people wrote down about a bridge, each note as it reads now.
CREATE TABLE bridge_note (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL REFERENCES bridge (id),
  kind VARCHAR(8) NOT NULL,
  words VARCHAR(4000) NOT NULL,
  -- Empty where it leads nowhere.
  link VARCHAR(1000) NOT NULL,
  revision INT NOT NULL,
  written_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  written_by VARCHAR(128) NOT NULL,
  -- Since when it does not hold any more; null while it does.
  over_since TIMESTAMP(9) WITH TIME ZONE
);
CREATE INDEX bridge_note_of ON bridge_note (bridge_id, id);

-- What each note said before, so that nothing that was written is lost.
CREATE TABLE bridge_note_before (
  note_id BIGINT NOT NULL REFERENCES bridge_note (id),
  revision INT NOT NULL,
  words VARCHAR(4000) NOT NULL,
  link VARCHAR(1000) NOT NULL,
  written_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  written_by VARCHAR(128) NOT NULL,
  PRIMARY KEY (note_id, revision)
);
