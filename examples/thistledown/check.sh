#!/bin/sh
# Builds and runs one part of the codebase. Exits with 77, for skipped, where its language is not installed.
set -e
needs() {
  command -v "$1" >/dev/null 2>&1 || {
    echo "$1 is not installed, so this part was not run"
    exit 77
  }
}
out=$(mktemp -d)
trap 'rm -rf "$out"' EXIT
case "$1" in
shop)
  node shop/shop.js
  ;;
desk)
  node -e 'require("react"); require("jsdom")' 2>/dev/null || {
    echo "react is not installed, so this part was not run"
    exit 77
  }
  node desk/desk.js
  ;;
reports)
  needs python3
  python3 -B reports/main.py
  ;;
models)
  needs python3
  python3 -B -W ignore models/main.py
  ;;
ledger)
  needs javac
  javac -Xlint:all -d "$out" ledger/Ledger.java
  java -cp "$out" Ledger ledger
  ;;
queens)
  needs g++
  g++ -std=c++17 -Wall -Werror -pthread -o "$out/queens" queens/main.cpp queens/hive.cpp queens/nursery.cpp
  "$out/queens" "$out/notes.txt"
  ;;
jars)
  needs mcs
  mcs -langversion:7.2 -out:"$out/jars.exe" jars/Jars.cs
  mono "$out/jars.exe" "$out/jars.txt"
  ;;
notices)
  needs php
  php notices/notices.php "$out/notices.txt"
  ;;
kiosk)
  needs ruby
  ruby kiosk/kiosk.rb "$out/kiosk.txt"
  ;;
nights)
  needs pwsh
  printf 'hive,grams\nNorth,900\n' >"$out/night.csv"
  pwsh -NoProfile -File nights/NightWatch.ps1 "$out/night.csv" "$out/report.txt"
  cat "$out/report.txt"
  ;;
*)
  echo "there is no part called $1" >&2
  exit 2
  ;;
esac
