#!/bin/sh
# Installs Debian's Chromium, for the browser tests, where it is missing.
set -eu
command -v chromium >/dev/null && exit 0
apt-get update -qq
DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium
