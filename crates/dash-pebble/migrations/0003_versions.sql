-- A revision that the photographer wants to find again has a name.
ALTER TABLE revision ADD COLUMN name TEXT;
