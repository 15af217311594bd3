#!/usr/bin/env bash
# Brings a file of translations up to date with all that the program says: the window's words, the core's tables, its
# sentences. Usage: update_words.sh KASURI_CLI LUPDATE FOLDER_FOR_WORK LANGUAGE FILE.ts
set -euo pipefail
cli=$1 lupdate=$2 work=$3/words language=$4 file=$5
cd "$(dirname "${BASH_SOURCE[0]}")/.."
mkdir -p "$work"
"$cli" docs words > "$work/tables.cpp"
python3 tools/core_words.py . > "$work/sentences.cpp"
"$lupdate" -silent app "$work/tables.cpp" "$work/sentences.cpp" -locations none -no-obsolete -target-language "$language" -ts "$file"
