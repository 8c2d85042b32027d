r"""Special characters: the names that `\(xx` and `\[name]` may carry, and what they stand for.

The names are those that the roff tradition documents for its output character set. Marks that a
page uses to write shell and C code (quotes, backslash, hyphen, caret, tilde) come out as the ASCII
characters that a reader can paste.
"""

from __future__ import annotations

import re
import unicodedata

from dowsing.readers.roff.marks import BACKSLASH, PAD, QUOTE, ZERO

_PAIRS = r"""
    -D Ð Sd ð TP Þ Tp þ ss ß ff ff fi fi fl fl Fi ffi Fl ffl AE Æ ae æ OE Œ oe œ IJ Ĳ ij ĳ .i ı .j ȷ
    /L Ł /l ł /O Ø /o ø vS Š vs š vZ Ž vz ž 'A Á 'C Ć 'E É 'I Í 'O Ó 'U Ú 'Y Ý 'a á 'c ć 'e é 'i í
    'o ó 'u ú 'y ý :A Ä :E Ë :I Ï :O Ö :U Ü :Y Ÿ :a ä :e ë :i ï :o ö :u ü :y ÿ ^A Â ^E Ê ^I Î ^O Ô
    ^U Û ^a â ^e ê ^i î ^o ô ^u û `A À `E È `I Ì `O Ò `U Ù `a à `e è `i ì `o ò `u ù ~A Ã ~N Ñ ~O Õ
    ~a ã ~n ñ ~o õ oA Å oa å ,C Ç ,c ç a" ˝ a- ¯ a. ˙ a^ ^ aa ´ ga ` ab ˘ ac ¸ ad ¨ ah ˇ ao ˚ a~ ~
    ho ˛ ha ^ ti ~ Bq „ bq ‚ lq “ rq ” oq ‘ cq ’ aq ' Fo « Fc » fo ‹ fc › r! ¡ r? ¿ em — en – hy -
    lB [ rB ] lC { rC } la ⟨ ra ⟩ bv │ <- ← -> → <> ↔ da ↓ ua ↑ va ↕ lA ⇐ rA ⇒ hA ⇔ dA ⇓ uA ⇑ vA ⇕
    an ⎯ ba | br │ ul _ rn ‾ ru _ bb ¦ sl / CL ♣ SP ♠ HE ♥ DI ♦ at @ dg † dd ‡ lh ☜ rh ☞ sh # ps ¶
    sc § ct ¢ eu € Eu € Ye ¥ Po £ Cs ¤ Fn ƒ de ° %0 ‰ fm ′ sd ″ mc µ Of ª Om º AN ∧ OR ∨ no ¬ tno ¬
    te ∃ fa ∀ st ∋ 3d ∴ tf ∴ 12 ½ 14 ¼ 34 ¾ 18 ⅛ 38 ⅜ 58 ⅝ 78 ⅞ S1 ¹ S2 ² S3 ³ pl + mi − -+ ∓ +- ±
    t+- ± pc · md ⋅ mu × tmu × c* ⊗ c+ ⊕ di ÷ tdi ÷ f/ ⁄ ** ∗ <= ≤ >= ≥ << ≪ >> ≫ eq = != ≠ == ≡
    ne ≢ =~ ≅ |= ≃ ap ∼ ~~ ≈ ~= ≈ pt ∝ es ∅ mo ∈ nm ∉ sb ⊂ nb ⊄ sp ⊃ nc ⊅ ib ⊆ ip ⊇ ca ∩ cu ∪ /_ ∠
    pp ⊥ is ∫ integral ∫ sum ∑ product ∏ coproduct ∐ gr ∇ sr √ sqrt √ lc ⌈ rc ⌉ lf ⌊ rf ⌋ if ∞ Ah ℵ
    Im ℑ Re ℜ wp ℘ pd ∂ -h ℏ hbar ℏ *A Α *B Β *G Γ *D Δ *E Ε *Z Ζ *Y Η *H Θ *I Ι *K Κ *L Λ *M Μ *N Ν
    *C Ξ *O Ο *P Π *R Ρ *S Σ *T Τ *U Υ *F Φ *X Χ *Q Ψ *W Ω *a α *b β *g γ *d δ *e ε *z ζ *y η *h θ
    *i ι *k κ *l λ *m μ *n ν *c ξ *o ο *p π *r ρ ts ς *s σ *t τ *u υ *f ϕ *x χ *q ψ *w ω +h ϑ +f φ
    +p ϖ +e ϵ co © rg ® tm ™ bs ☎ sq □ ci ○ bu • lz ◊ CR ↵ OK ✓ lt ⎧ lk ⎨ lb ⎩ rt ⎫ rk ⎬ rb ⎭
    bracelefttp ⎧ braceleftmid ⎨ braceleftbt ⎩ bracerighttp ⎫ bracerightmid ⎬ bracerightbt ⎭
    braceex ⎪ parenlefttp ⎛ parenleftbt ⎝ parenleftex ⎜ parenrighttp ⎞ parenrightbt ⎠ parenrightex ⎟
    bracketlefttp ⎡ bracketleftbt ⎣ bracketleftex ⎢ bracketrighttp ⎤ bracketrightbt ⎦
    bracketrightex ⎥ Do $ uA ⇑ vA ⇕ coproduct ∐ tick ` dq " rs \ char46 .
""".split()

#: What a glyph's name stands for. Backslash and double quote are marks here (see marks.py), so
#: that they do not take part in escapes and in the splitting of arguments.
GLYPHS: dict[str, str] = dict(zip(_PAIRS[::2], _PAIRS[1::2], strict=True))
GLYPHS.update(
    {
        "rs": BACKSLASH,
        "dq": QUOTE,
        "aq": ZERO + "'",
        "nbsp": PAD,
        "shc": "",
        "ga": "`",
        "u0027": ZERO + "'",
    }
)
GLYPHS.update({"u002D": "-", "u005C": BACKSLASH, "u0022": QUOTE, "u0020": PAD, "u00A0": PAD})
GLYPHS.update({"radicalex": "", "sqrtex": "", "char46": ZERO + ".", "u002E": ZERO + ".", "lh": "☜"})

_CODE = re.compile(r"u([0-9A-F]{4,6})((?:_[0-9A-F]{4,6})*)\Z")
_NUMBER = re.compile(r"char(\d{1,3})\Z")
_ACCENTS = {
    "aa": "\u0301",
    "ga": "\u0300",
    "a^": "\u0302",
    "a~": "\u0303",
    "ad": "\u0308",
    "ac": "\u0327",
}
_ACCENTS |= {
    "ah": "\u030c",
    "ao": "\u030a",
    "ab": "\u0306",
    "a-": "\u0304",
    "a.": "\u0307",
    'a"': "\u030b",
}


def code_point(number: int) -> str:
    """The character of that code, "" if it is a control character or no character at all."""
    if number == 0xA0:
        return PAD
    if number in (0x22, 0x5C):
        return QUOTE if number == 0x22 else BACKSLASH
    if number < 32 or 0x7F <= number < 0xA0 or number > 0x10FFFF or 0xD800 <= number < 0xE000:
        return ""
    char = chr(number)
    return char if unicodedata.category(char) not in ("Cf", "Zl", "Zp") else ""


def glyph(name: str) -> str | None:
    r"""The text that `\[name]` stands for, or None if the name is unknown."""
    known = GLYPHS.get(name)
    if known is not None:
        return known
    if match := _CODE.match(name):
        codes = [match[1], *match[2].split("_")[1:]]
        return unicodedata.normalize("NFC", "".join(code_point(int(c, 16)) for c in codes))
    if match := _NUMBER.match(name):
        return code_point(int(match[1]))
    if " " in name and name.strip():  # a base and its accents: `a aa`
        base, *accents = name.split()
        marks = [_ACCENTS.get(accent) for accent in accents]
        if None not in marks:
            first = glyph(base) if len(base) > 1 else base
            return unicodedata.normalize("NFC", (first or "") + "".join(m for m in marks if m))
    return name if len(name) == 1 else None
