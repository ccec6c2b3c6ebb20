-- The words of each piece, one space apart with one before the first.
UPDATE `assets` SET `search` = CONCAT(' ', REGEXP_REPLACE(`search`, '[^\\p{L}\\p{M}\\p{N}]+', ' '));
