"""Envelopes as they are pasted, in many hands. All invented; common practice, no source.

Each entry: the text, then what must be read of it. Texts and numbers stand under the names of the pattern exchange;
`labels` are the sizes; `bust`, `waist`, `hip` and `finished_…` are cm by size; `need` lists (view, use, width in cm,
length in m, first size) of rows that must be among the amounts; `rows` is how many amounts there are; `options` maps an
option to its views; `unread` is how many lines may stay unread (0 if not said); `cloths` must be among those named.
"""

from __future__ import annotations

from typing import Any

PASTED: list[tuple[str, dict[str, Any]]] = [
    ("""BR-50 Godwit culottes by Brindlecote
Views: A full length with pleats; B cropped with elastic waist
Recommended fabrics: light to medium weight wovens with drape such as linen, viscose twill, crepe.
Not suitable for knits.

Sizes 8 10 12 14 16
Bust  84 88 92 97 102 cm
33 34½ 36¼ 38¼ 40 in
Waist 66 70 74 79 84
Hip   90 94 98 103 108
Finished hip 104 108 112 117 122

Fabric requirements
View A
115 cm  2.6 2.6 2.7 2.8 2.8 m
150 cm  2.1 2.1 2.1 2.2 2.2
View B
45"  2 7/8  3 3 3 1/8 3¼ yd
60 in 1⅞ 2 2 2⅛ 2¼ yds
Lining 150 cm 0.4 m
Interfacing: 0.5 m of light fusible, 90 cm wide
Notions: 1 zip 20 cm, 2 buttons 15 mm, thread
Difficulty: confident beginner
Stretch: none""",
     {"code": "BR-50", "name": "Godwit culottes", "house": "Brindlecote", "labels": ["8", "10", "12", "14", "16"],
      "hip": [90, 94, 98, 103, 108], "finished_hip": [104, 108, 112, 117, 122], "difficulty": "easy",
      "options": {"pleats": ["A"], "elastic waist": ["B"]}, "rows": 15, "cloths": {"linen", "viscose twill"},
      "need": [("A", "main", 115, 2.6, "8"), ("B", "main", 114.3, 2.6289, "8"), ("B", "lining", 150, 0.4, "8")],
      "notions": "interfacing: 0.5 m of light fusible, 90 cm wide\n1 zip 20 cm, 2 buttons 15 mm, thread"}),
    ("""Siskin tee
Designer: Ousel & Rye
For: knits only
Suggested fabric: jersey with at least 30% stretch

Size\tBust\tWaist\tHip\tFinished bust
XS\t81\t62\t88\t78
S\t86\t67\t93\t82
M\t92\t73\t99\t88

Fabric required\t\t
Size\t115 cm\t150 cm
XS-S\t1.4 m\t1.1
M\t1.6\t1.2
You will need: thread; clear elastic 1 m""",
     {"name": "Siskin tee", "house": "Ousel & Rye", "structure": "knit", "labels": ["XS", "S", "M"], "bust": [81, 86, 92],
      "finished_bust": [78, 82, 88], "rows": 4, "need": [("A", "main", 115, 1.4, "XS"), ("A", "main", 150, 1.2, "M")],
      "notions": "thread; clear elastic 1 m", "cloths": {"cotton jersey"}}),
    ("""Wheatear body
Sizes XS - XL
Bust 80 84 90 96 104
Parts: body (close); sleeves (free, full sleeve)
Body: cotton jersey or viscose jersey with 25% stretch
Sleeves: dotted tulle or chiffon
Main fabric
140 cm 1.0 1.0 1.1 1.2 1.3
Sleeves in dotted tulle: 0.8 m of 140 cm""",
     {"name": "Wheatear body", "labels": ["XS", "S", "M", "L", "XL"], "bust": [80, 84, 90, 96, 104],
      "parts": {"body": "close", "sleeves": "free"}, "cloths": {"cotton jersey"},
      "need": [("A", "main", 140, 1.0, "XS"), ("A", "contrast", 140, 0.8, "XS")]}),
    ("""Pattern name: Avocet shift
Pattern number: PR-31
Published by: Pennon Row
Woven or knit: either
Fabrics: stable knits such as ponte, or medium weight wovens such as linen and crepe
Level: Intermediate
Format: PDF and paper
Season: spring
Terms of use: small makers may sell what they sew""",
     {"name": "Avocet shift", "code": "PR-31", "house": "Pennon Row", "structure": "either", "difficulty": "intermediate",
      "sold_as": "paper and PDF", "season": "spring", "licence": "small makers may sell what they sew",
      "cloths": {"ponte", "linen"}}),
    ("""Size | 6 | 8 | 10 | 12
Bust (in) | 30½ | 31½ | 32½ | 34
Waist (in) | 23 | 24 | 25 | 26½
Hip (in) | 32½ | 33½ | 34½ | 36
45 in | 2 3/8 | 2 3/8 | 2 1/2 | 2 5/8 yd
60 in | 1 3/4 | 1 3/4 | 1 7/8 | 1 7/8 yd""",
     {"labels": ["6", "8", "10", "12"], "bust": [77.5, 80.0, 82.5, 86.4], "hip": [82.5, 85.1, 87.6, 91.4],
      "need": [("A", "main", 114.3, 2.1717, "6"), ("A", "main", 152.4, 1.6002, "6"), ("A", "main", 114.3, 2.286, "10")]}),
    ("""Sizes: 0-16
Bust: 78 81 84 87 91 95 100 105 110
Curve sizes: 12-32
Bust: 95 100 105 110 116 122 128 134 140 146 152
Hip: 102 107 112 117 123 129 135 141 147 153 159""",
     {"labels": ["0", "2", "4", "6", "8", "10", "12", "14", "16", "12 (curve)", "14 (curve)", "16 (curve)", "18",
                 "20", "22", "24", "26", "28", "30", "32"], "bands": ["band 1", "curve"],
      "bust": [78, 81, 84, 87, 91, 95, 100, 105, 110, 95, 100, 105, 110, 116, 122, 128, 134, 140, 146, 152]}),
    ("""View A: knee length with shirt collar and long sleeves
View B: midi with shirt collar, elastic cuffs
View C: midi, no collar, with ties""",
     {"options": {"shirt collar": ["A", "B"], "long sleeves": ["A"], "elastic cuffs": ["B"], "ties": ["C"]}}),
    ("""Cloth required
View A, B: 2.5 m of 140 cm wide cloth
View C 3.1 m of 140 cm
with nap 150 cm 2.8 m""",
     {"need": [("A", "main", 140, 2.5, None), ("B", "main", 140, 2.5, None), ("C", "main", 140, 3.1, None),
               ("C", "main", 150, 2.8, None)], "nap": [150], "rows": 4}),
    ("""Sizes 8-14 16-22
Fabric requirements
Sizes 8-14: 2.5 m at 140 cm
Sizes 16-22: 3 m at 140 cm""",
     {"labels": ["8", "10", "12", "14", "16", "18", "20", "22"],
      "need": [("A", "main", 140, 2.5, "8"), ("A", "main", 140, 3.0, "16")], "rows": 2}),
    ("""Fabric requirements
2 1/2 yards of 45-inch fabric or 1 3/4 yards of 60-inch fabric""",
     {"need": [("A", "main", 114.3, 2.286, None), ("A", "main", 152.4, 1.6002, None)], "rows": 2}),
    ("""Yardage
44/45"  3¼ yds
58/60"  2½ yds""", {"need": [("A", "main", 111.8, 2.9718, None), ("A", "main", 147.3, 2.286, None)]}),
    ("""Metreage (115 cm and 150 cm)
112-115 cm wide 230 cm
140–150 cm wide 180 cm""", {"need": [("A", "main", 112, 2.3, None), ("A", "main", 140, 1.8, None)], "unread": 0}),
    ("""Body measurements (cm)
Size 34 36 38 40 42
Chest 80 84 88 92 96
Natural waist 64 68 72 76 80
Hips 88 92 96 100 104
Back length 40 40.5 41 41.5 42
Finished garment measurements
Chest 96 100 104 108 112
Hips 100 104 108 112 116""",
     {"labels": ["34", "36", "38", "40", "42"], "bust": [80, 84, 88, 92, 96], "waist": [64, 68, 72, 76, 80],
      "finished_bust": [96, 100, 104, 108, 112], "finished_hip": [100, 104, 108, 112, 116]}),
    ("""Size S M L XL
Bust 84-88 89-94 95-101 102-109
Cup sizes: A B C D""", {"labels": ["S", "M", "L", "XL"], "bust": [88, 94, 101, 109], "cup": "A B C D"}),
    ("""Recommended fabrics
Lightweight cottons such as lawn, voile and batiste;
light linen or viscose if lined.
Avoid: stiff cloth, large checks""",
     {"cloths": {"cotton lawn", "cotton voile", "batiste"}, "avoid": "stiff cloth, large checks"}),
    ("""Fabric: rayon, lyocell twill, silk noil
Notions: 3/8" elastic for the waist (1 1/2 yds), thread""",
     {"recommended": "rayon, lyocell twill, silk noil", "cloths": {"viscose challis"},
      "notions": '3/8" elastic for the waist (1 1/2 yds), thread'}),
    ("""Haberdashery
6 buttons, 12 mm
30 cm zip
1.5 m of bias binding""", {"notions": "6 buttons, 12 mm\n30 cm zip\n1.5 m of bias binding"}),
    ("""View A notions: 5 buttons
View B notions: 40 cm zip""", {"notions": "View A: 5 buttons\nView B: 40 cm zip"}),
    ("""Stretch: 40% across and 20% along
Fabric suggestions: swim knit, activewear knit""",
     {"min_stretch_cross_pct": 40.0, "min_stretch_length_pct": 20.0}),
    ("Stretch required: 10 cm stretches to 14 cm", {"min_stretch_cross_pct": 40.0}),
    ("Min. stretch: 25 %", {"min_stretch_cross_pct": 25.0}),
    ("Fit: loose\nDesign features: patch pockets, yoke, button band",
     {"parts": {"body": "loose"}, "details": ["patch pockets", "yoke", "button band"]}),
    ("Features: princess seams, invisible zip, fully lined", {"details": ["princess seams", "invisible zip"], "lined": True}),
    ("Details: wrap front, pocket lining only, unlined", {"lined": None, "details": ["wrap front", "pocket lining only"]}),
    ("Lining: 1.8 m of 140 cm wide lining fabric\nDescription: a lined coat with notched lapels",
     {"lined": True, "need": [("A", "lining", 140, 1.8, None)], "details": ["notched lapels"]}),
    ("Contrast yoke: 0.5 m of 150 cm", {"need": [("A", "contrast", 150, 0.5, None)]}),
    ("Widest piece: 62 cm", {"widest_piece_cm": 62.0}),
    ("Widest pattern piece: 24 in", {"widest_piece_cm": 61.0}),
    ("Nap: yes\nFabric required\n150 cm 2.2 m", {"need": [("A", "main", 150, 2.2, None)], "nap": [150]}),
    ("Sizing: UK 6-24", {"labels": ["6", "8", "10", "12", "14", "16", "18", "20", "22", "24"]}),
    ("Size range: EU 34–46", {"labels": ["34", "36", "38", "40", "42", "44", "46"]}),
    ("Sizes: 1X 2X 3X 4X", {"labels": ["1X", "2X", "3X", "4X"]}),
    ("Sizes: XXS, XS, S, M, L, XL, XXL", {"labels": ["XXS", "XS", "S", "M", "L", "XL", "XXL"]}),
    ("Ages: 2-8\nFor whom: children\nGarment: nightshirt", {"for": "child", "garment": "nightshirt", "unread": 1}),
    ("Sizes: 2T 3T 4T\nWearer: toddler", {"labels": ["2T", "3T", "4T"], "for": "child"}),
    ("Skill level: adventurous beginner", {"difficulty": "improver"}),
    ("Sewing level: 4", {"difficulty": "advanced"}),
    ("Difficulty: Easy - a first project", {"difficulty": "easy"}),
    ("Comes as: PDF download", {"sold_as": "PDF"}),
    ("Designed for woven fabrics with good drape: viscose, crepe de chine, silk.",
     {"cloths": {"viscose challis", "crepe de chine"}, "unread": 0}),
    ("Suitable for light to medium weight fabrics\nsuch as cotton lawn, chambray or linen",
     {"cloths": {"cotton lawn", "chambray", "linen"}}),
    ("Made for: sweatshirting, French terry; rib for cuffs and neckband", {"cloths": {"sweatshirt fleece", "french terry"}}),
    ("Cloth: velvet or crepe without the pin tucks, otherwise lawn", {"cloths": {"cotton lawn"}}),
    ("Choose: denim (8 to 10 oz), needlecord or heavy linen", {"cloths": {"denim"}}),
    ("Fabric types - woven: linen, chambray. Interfacing - 0.6 m fusible", {"cloths": {"linen", "chambray"}}),
    ("""Dotterel coat | Brindlecote
Suggested fabrics: wool coating, boiled wool, tweed
Fabric requirements (m)
Size 8-12 14-18 20-24
150 cm 3.0 3.3 3.6
Lining
140 cm 2.4 2.6 2.9""",
     {"name": "Dotterel coat", "house": "Brindlecote", "garment": "coat", "cloths": {"wool coating", "tweed"},
      "need": [("A", "main", 150, 3.0, "8"), ("A", "main", 150, 3.6, "20"), ("A", "lining", 140, 2.4, "8")]}),
    ("""Size\tView\tWidth\tMetres
8-12\tA\t140\t2.1
14-18\tA\t140\t2.4
8-12\tB\t140\t2.6""",
     {"need": [("A", "main", 140, 2.1, "8"), ("A", "main", 140, 2.4, "14"), ("B", "main", 140, 2.6, "8")], "rows": 3}),
    ("""Size\tFabric width\tYards\tNap
10\t45\t2 3/8\twith nap
10\t60\t1 7/8\twithout""",
     {"need": [("A", "main", 114.3, 2.1717, "10"), ("A", "main", 152.4, 1.7145, "10")], "nap": [114.3]}),
    ("""Size;Bust;Hip
8;84;90
10;88;94""".replace(";", "\t"), {"labels": ["8", "10"], "bust": [84, 88], "hip": [90, 94]}),
    ("""Size  Bust  Waist  Hip
S  34"  26"  36"
M  37"  29"  39\"""", {"labels": ["S", "M"], "bust": [86.4, 94.0], "hip": [91.4, 99.1]}),
    ("""Sizes 8 10 12
Bust 84 cm/33 in  88 cm/34½ in  92 cm/36¼ in""", {"labels": ["8", "10", "12"], "bust": [84, 88, 92]}),
    ("""Sizes 8 10 12
Bust 33 34½ 36¼
84 88 92 cm""", {"bust": [83.8, 87.6, 92.1]}),
    ("""Sizes 8 10 12
High bust 80 84 88
Full bust 84 88 92""", {"high_bust": [80, 84, 88], "bust": [84, 88, 92]}),
    ("""Sizes 8 10 12
Bust 84 88""", {"labels": ["8", "10", "12"], "faults": ["has 2 numbers for 3 sizes"]}),
    ("Sizes: petite and tall", {"faults": ["is no list of sizes"]}),
    ("Difficulty: spicy", {"faults": ["is no difficulty"]}),
    ("Stretch: some give, you will see", {"faults": ["says no stretch"]}),
    ("""Fabric requirements
Sizes 8 10 12
150 cm 2.0 2.1 2.2 2.3 m""", {"faults": ["has 4 amounts for 3 sizes"]}),
    ("TP-29 Knot twist top by Tallowby Pattern Works\nFabric: light jersey, ITY, viscose jersey; 50% stretch",
     {"code": "TP-29", "name": "Knot twist top", "house": "Tallowby Pattern Works", "garment": "twist top",
      "cloths": {"viscose jersey"}}),
    ("Corncrake shirt dress\n\nSuggested: shirting, chambray, poplin", {"garment": "shirt dress",
                                                                       "cloths": {"shirting", "chambray", "cotton poplin"}}),
    ("Lapwing cocoon\nCloth\nmedium weight linen, wool crepe\n\nWe hope you enjoy the making!",
     {"name": "Lapwing cocoon", "cloths": {"linen", "wool crepe"}, "unread": 1}),
    ("Fabrics: cotton spandex jersey, rayon jersey (at least 40% stretch)\nAvoid: fabrics without recovery",
     {"cloths": {"cotton jersey", "viscose jersey"}}),
    ("Fabric A: 1.2 m of 150 cm\nFabric B: 0.4 m of 150 cm",
     {"need": [("A", "main", 150, 1.2, None), ("A", "contrast", 150, 0.4, None)]}),
    ("150cm/60in wide: 1.9 m (2⅛ yd)", {"need": [("A", "main", 150, 1.9, None)]}),
]  # fmt: skip
