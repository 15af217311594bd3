#!/usr/bin/env python3
"""Whether a file of translations has all that the program says, with the same holes in every sentence.
Usage: check_words.py KASURI_CLI LUPDATE FOLDER_FOR_WORK FILE.ts"""
import collections
import pathlib
import re
import shutil
import subprocess
import sys
import xml.etree.ElementTree as tree

HOLE = re.compile(r'%(?:n|L?\d)|\{[^{}"]*\}(?!\w)')


def holes(text):
    return collections.Counter(HOLE.findall(text))


def main():
    cli, lupdate, work, file = sys.argv[1:]
    language = pathlib.Path(file).stem.split('_')[1]
    fresh = pathlib.Path(work, pathlib.Path(file).name)
    fresh.parent.mkdir(parents=True, exist_ok=True)
    shutil.copy(file, fresh)
    script = pathlib.Path(__file__).parent / 'update_words.sh'
    subprocess.run([script, cli, lupdate, work, language, fresh], check=True)
    faults, count = [], 0
    for context in tree.parse(fresh).getroot().iter('context'):
        for message in context.iter('message'):
            count += 1
            source, translation = message.find('source').text, message.find('translation')
            where = f'{context.find("name").text}: {source!r}'
            forms = [form.text or '' for form in translation.iter('numerusform')] or [translation.text or '']
            if translation.get('type') == 'unfinished' or not all(forms):
                faults.append(f'{where} is not translated')
            elif translation.get('type') is None and any(holes(form) != holes(source) for form in forms):
                faults.append(f'{where} has other holes: {forms}')
    print('\n'.join(faults + [f'{count} texts, {len(faults)} faults']))
    if faults or count == 0:
        print(f'Bring it up to date (target kasuri_words) and translate what is new in {file}.')
        return 1
    return 0


if __name__ == '__main__':
    sys.exit(main())
