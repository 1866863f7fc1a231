# Sourced by run-demo and run-tests: installs what is missing, or says what it would install.
missing_packages() {
    for p in $(grep -v '^#' scripts/packages.txt); do
        dpkg-query -W -f='${Status}\n' "$p" 2>/dev/null | grep -q '^install ok installed$' || printf '%s ' "$p"
    done
}

install_missing() {
    missing=$(missing_packages)
    [ -z "$missing" ] && return 0
    if [ "$(id -u)" = 0 ]; then
        as_root=""
    elif command -v sudo >/dev/null && { sudo -n true 2>/dev/null || [ -t 0 ]; }; then
        as_root="sudo"
    else
        echo "These Debian packages are missing, and this account may not install them:"
        echo "  $missing"
        echo "Ask an administrator for: apt-get install --no-install-recommends $missing"
        exit 1
    fi
    echo "Installing: $missing"
    # shellcheck disable=SC2086
    $as_root apt-get update -qq
    # shellcheck disable=SC2086
    $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing
}
