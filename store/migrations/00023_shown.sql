-- +goose Up
-- A box shows a photograph only where that is its maker's: what somebody else put into it while
-- it was shared becomes its maker's too, and so does what stands in a note of a shared box.
INSERT OR IGNORE INTO photo_makers (photo, maker)
    SELECT p.id, b.maker FROM photos p JOIN boxes b ON instr(b.inputs, p.id)
    WHERE b.maker > 0 AND EXISTS (SELECT 1 FROM changes c JOIN photo_makers m ON m.maker = c.maker WHERE c.box_id = b.id AND m.photo = p.id);
INSERT OR IGNORE INTO photo_makers (photo, maker)
    SELECT p.id, n.maker FROM photos p JOIN notes n ON instr(n.design, p.id) JOIN boxes b ON b.id = n.box_id
    WHERE n.maker > 0 AND b.shared AND EXISTS (SELECT 1 FROM photo_makers m WHERE m.photo = p.id AND m.maker = b.maker);

-- +goose Down
SELECT 1;
