-- Edits have names, so that one that is sent twice is written once; parts are written after a while, the log at once.
ALTER TABLE edits ADD COLUMN uid text;
CREATE UNIQUE INDEX edits_uid ON edits (folio, uid) WHERE uid IS NOT NULL;
ALTER TABLE folios ADD COLUMN parts_seq integer NOT NULL DEFAULT 0;
UPDATE folios SET parts_seq = seq;

-- Writes rows on top of row `last` of a document: all of them, or none where another process has written one meanwhile or the
-- document is gone. A function, since its plan is kept: this runs for every key that somebody presses.
CREATE FUNCTION append_edits(document text, last integer, title_now text, owner_now text, new_rows jsonb) RETURNS boolean LANGUAGE plpgsql AS $$
BEGIN
  UPDATE folios SET seq = last + jsonb_array_length(new_rows), title = title_now, changed_at = now() WHERE id = document AND seq = last;
  IF NOT FOUND THEN
    RETURN false;
  END IF;
  INSERT INTO edits (folio, seq, base, owner, actor, at, burst, uid, edit, patches, inverse, touched)
  SELECT document, r.seq, r.base, owner_now, r.actor, r.at, r."group", r.uid, r.edit, r.patches, r.inverse, r.touched
  FROM jsonb_to_recordset(new_rows) AS r(seq integer, base integer, actor text, at timestamptz, "group" text, uid text,
    edit jsonb, patches jsonb, inverse jsonb, touched jsonb);
  RETURN true;
END
$$;
