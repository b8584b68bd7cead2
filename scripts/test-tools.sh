#!/bin/sh
# Installs what the tests look at the program with, where it is missing: Debian's
# Chromium without a window for the browser tests, poppler's tools for the plan sheet.
set -eu
missing=""
command -v chromium-headless-shell >/dev/null || missing="chromium-headless-shell"
command -v pdftoppm >/dev/null || missing="$missing poppler-utils"
[ -z "$missing" ] && exit 0
apt-get update -qq
# shellcheck disable=SC2086 — a list of packages
DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing
