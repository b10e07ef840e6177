-- Runs are their own queue: who asked for one, whose hands it is in, and whether its result is to be published once it is there.
ALTER TABLE runs ADD COLUMN asked_by text NOT NULL DEFAULT '';
ALTER TABLE runs ADD COLUMN worker text;
ALTER TABLE runs ADD COLUMN publish boolean NOT NULL DEFAULT false;
DROP SCHEMA IF EXISTS pgboss CASCADE;
