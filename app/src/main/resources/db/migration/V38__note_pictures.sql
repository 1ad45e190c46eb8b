-- Pictures that belong to notes; one that is taken away is kept and not shown any more.
CREATE TABLE bridge_note_picture (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  note_id BIGINT NOT NULL REFERENCES bridge_note (id),
  shows VARCHAR(200) NOT NULL,
  media_type VARCHAR(16) NOT NULL,
  picture BINARY LARGE OBJECT NOT NULL,
  added_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  added_by VARCHAR(128) NOT NULL,
  taken_away_at TIMESTAMP(9) WITH TIME ZONE,
  taken_away_by VARCHAR(128)
);
CREATE INDEX bridge_note_picture_of ON bridge_note_picture (note_id, id);
