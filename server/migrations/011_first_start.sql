-- What a first start has put on the shelf so far, so that one that is interrupted goes on; the row “*” says that all of it is there.
CREATE TABLE first_start (
  what text PRIMARY KEY,
  at timestamptz NOT NULL DEFAULT now()
);
INSERT INTO first_start (what) SELECT '*' WHERE EXISTS (SELECT FROM folios);
