"""Rows of the shop that cannot all be true: what they are, and the query that counts them."""

CONTRADICTIONS = (
    ("two cloths of one code", "select count(*) from (select code from cloth group by code having count(*) > 1) x"),
    ("two patterns of one code", "select count(*) from (select code from pattern group by code having count(*) > 1) x"),
    ("cloths whose photo is another cloth's", "select count(*) from cloth c join photo p on p.id = c.photo_id where p.cloth_id <> c.id"),
    ("cloths whose photo is gone", "select count(*) from cloth c left join photo p on p.id = c.photo_id where c.photo_id > 0 and p.id is null"),
    ("cloths with less than nothing in stock", "select count(*) from cloth where stock_m < 0"),
    ("lengths held back that are no length", "select count(*) from reservation where length_m <= 0"),
    ("rows newer than their counter", "select count(*) from cloth where version > (select value from setting where name = 'shelf version')"),
    ("sign-ins of nobody", "select count(*) from sign_in s left join person p on p.id = s.person_id where p.id is null"),
)  # fmt: skip
