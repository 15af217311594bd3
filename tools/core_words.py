#!/usr/bin/env python3
"""Writes the sentences of the core that people read as a file for lupdate: what stands in said( ) and Error{ }, and the
phrases that diagnostics and fixes are filled with. Usage: core_words.py SOURCE_FOLDER > words.cpp"""
import pathlib
import re
import sys

OPENERS = re.compile(r'(?<![\w])(?<!emit )(?:said|Error|failure|Wrong|fault|fail|translated|give_up|expect|expect_name|fixes\.push_back|meant_fix|Fix)\s*[({]|return (?=")|const char\* \w+ = (?=")|vector<Fix>\{|\{\{"')
LITERAL = re.compile(r'"((?:[^"\\\n]|\\.)*)"')
CODE = re.compile(r'^[A-Z_ ]+$|^[\w.-]+$|^[^A-Za-z]*$')
TEXT_OF_RULES = re.compile(r'^\.|^filter |^preset |^(keep luminance|hold hue)$|is chosen below')


def balanced(text, start):
    """The text from an opening bracket to its end, strings and characters skipped."""
    depth, at = 0, start
    while at < len(text):
        char = text[at]
        if char == '"':
            at = LITERAL.match(text, at).end()
            continue
        if char == "'":
            at += 3 if text[at + 1] != '\\' else 4
            continue
        depth += char in '({['
        depth -= char in ')}]'
        at += 1
        if depth == 0:
            return text[start:at]
    return text[start:]


def sentences(text):
    for opener in OPENERS.finditer(text):
        if opener.group(0).startswith(('return', 'const')):
            end = text.find(';', opener.end())
            inside, whole = text[opener.end():end], False
        else:
            inside = balanced(text, opener.end() - 1)
            whole = opener.group(0).startswith(('said', 'translated'))
        at, first = 0, True
        while (literal := LITERAL.search(inside, at)):
            words, at = literal.group(1), literal.end()
            while (more := re.compile(r'\s*"((?:[^"\\\n]|\\.)*)"').match(inside, at)):  # joined by the compiler
                words, at = words + more.group(1), more.end()
            if (whole and first and not CODE.match(words)) or (whole and first and re.match(r'^[a-z]+$', words)) or ' ' in words.strip():
                yield words
            first = False


def main():
    found = set()
    for folder in ('core', 'app/model'):
        for file in sorted(pathlib.Path(sys.argv[1], folder).rglob('*.[ch]pp')):
            if file.name in ('shader.cpp', 'error_documentation.cpp', 'printed.cpp') or 'core/report' in str(file):
                continue
            text = re.sub(r'//[^\n]*', '', file.read_text(encoding='utf-8'))
            found.update(words for words in sentences(text) if re.search('[A-Za-z]', words) and not TEXT_OF_RULES.search(words))
    print('#include <QtGlobal>\n\n[[maybe_unused]] static const char* const sentences[] = {')
    for words in sorted(found):
        print(f'    QT_TRANSLATE_NOOP("Core", "{words}"),')
    print('};')


if __name__ == '__main__':
    main()
