"""How texts say that a form follows, in the languages that programs are translated to most."""

from __future__ import annotations

#: Alternatives of a pattern; case is ignored.
USAGE_WORDS = (
    "usage|use|synopsis|aufruf|verwendung|benutzung|gebrauch|utilisation|syntaxe|uso|modo de uso"
    "|utilizzo|gebruik|användning|använd|brug|bruk|käyttö|użycie|sposób użycia|použití|kullanım"
    "|использование|применение|使用法|使用方法|使い方|用法|사용법"
)
