#!/bin/sh
# Debian's shell opens no page by itself, and a driver looks for one. Where there is no shell, the whole browser does.
if [ -x /usr/bin/chromium-headless-shell ]; then
    exec /usr/bin/chromium-headless-shell "$@" about:blank
fi
exec /usr/bin/chromium --headless=new "$@"
