-- +goose Up
-- A maker's own things, to be boxed again. thing is the JSON of one thing as
-- in a design file.
CREATE TABLE things (
    id    INTEGER PRIMARY KEY AUTOINCREMENT,
    thing TEXT NOT NULL UNIQUE CHECK (json_valid(thing))
);
INSERT INTO things (thing) VALUES
    ('{"name":"little honey jar","shape":"round","across":48,"height":62,"grams":110,"fragile":true}'),
    ('{"name":"LED tea-light","shape":"round","across":38,"height":20,"grams":14}'),
    ('{"name":"story cards","shape":"stack","length":63,"width":88,"height":18,"grams":95,"up":["height","length","width"]}'),
    ('{"name":"folded cards in envelopes","shape":"stack","length":152,"width":108,"height":1,"cards":6,"each":1.6,"raised":0.8}'),
    ('{"name":"knitted scarf, folded","shape":"soft","length":200,"width":140,"height":70,"squeeze":30,"ease":0,"grams":180}'),
    ('{"name":"carved owl","shape":"irregular","length":44,"width":38,"height":71,"ease":3,"grams":60,"fragile":true}');

-- +goose Down
DROP TABLE things;
