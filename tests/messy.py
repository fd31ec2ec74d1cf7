"""A price list as a messy supplier sends it: a title above, semicolons, mixed units, faults. All invented."""

MESSY_LIST = """Weaverbird Agencies ; autumn list;;;;;
;;;;;;
Art. No;Fabric Description;Composition;Breite / Width;Weight;Price;In stock
WB-01;Gorse path linen cotton;55% linen 45% cotton;150cm/59";220 g/m2;£12.50/m;23,5 m
WB-02;Puddle light denim;100% cotton;58 in;6.5 oz;14.45 per quarter yard;12 yds
WB-03;Dusk moth challis;80 % rayon from bamboo 20% cotton;140;3.5oz;€9,80;8
WB-04;Widow's lawn;100% cotton;150cm/45";80;£9/m;4
WB-05;Cinder ponte;68% viscose 27% nylon 5% spandex;150 cm;290 gsm;=SUM(A1:A9);9
WB-01;Twice listed lawn;100% cotton;140;80;£9/m;4
WB-07;;100% cotton;140;80;£9/m;4
WB-08;The nameless one;;140;80;£9/m;4
WB-09;Fen-edge jersey;95% cotton 5% elastane;160 cm;195;£11.40;42
"""
