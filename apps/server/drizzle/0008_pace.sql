-- The pace of bound images is another figure from here on; it is measured anew.
UPDATE `presses` SET `seconds_per_bound` = NULL;
