# Builds a Debian package of the server. Sourced by lychnos.
if [ $# -gt 0 ]; then
  cat <<'TXT'
usage: ./lychnos package

Builds target/lychnos_VERSION_all.deb: the server, its web pages, the vantage point, a service, man page and completion.
The version is the moment of the newest commit. Packing the same build twice gives the same file.

The package needs PostgreSQL and Java of Debian. Installing it makes the database, its roles, a user and the service;
an upgrade backs the database up and migrates it; purging asks before it deletes anything.
TXT
  case $1 in --help) exit 0 ;; *) exit 2 ;; esac
fi
ensure_base
missing=()
need dpkg-deb dpkg git git
install_missing
ensure_node
ensure_built
committed=$(git -C "$ROOT" -c safe.directory="$ROOT" log -1 --format=%ct 2>/dev/null) \
  || die "the version is the moment of the newest commit, and this is no checkout"
version=$(date -u -d "@$committed" +0.%Y%m%d.%H%M)
tree=$(mktemp -d "${TMPDIR:-/tmp}/lychnos-package.XXXXXX")
trap 'rm -rf "$tree"' EXIT
app=$tree/usr/share/lychnos
mkdir -p "$app/bin" "$app/server/target" "$tree/usr/bin" "$tree/lib/systemd/system" "$tree/usr/share/man/man8" \
  "$tree/usr/share/bash-completion/completions" "$tree/usr/share/doc/lychnos" "$tree/DEBIAN"
cp "$ROOT/lychnos" "$app/"
for each in common services account doctor kind vantage verify; do cp "$ROOT/bin/$each.sh" "$app/bin/"; done
cp -r "$ROOT/server/target/quarkus-app" "$app/server/target/"
cp "$ROOT/packaging/debian/lychnos" "$tree/usr/bin/"
for unit in lychnos lychnos-vantage; do
  sed -e 's#/opt/lychnos/docs#/usr/share/doc/lychnos#' -e 's#/opt/lychnos/lychnos vantage#/usr/bin/lychnos vantage#' \
    -e 's#/opt/lychnos#/usr/share/lychnos#g' "$ROOT/packaging/$unit.service" >"$tree/lib/systemd/system/$unit.service"
done
gzip -9 -n -c "$ROOT/packaging/debian/lychnos.8" >"$tree/usr/share/man/man8/lychnos.8.gz"
cp "$ROOT/packaging/debian/completion" "$tree/usr/share/bash-completion/completions/lychnos"
cp "$ROOT"/docs/{operations,guide,security,prove}.md "$tree/usr/share/doc/lychnos/"
for each in "$ROOT"/server/target/{third-party.txt,bom.json}; do
  [ ! -f "$each" ] || cp "$each" "$tree/usr/share/doc/lychnos/"
done
find "$tree" -type d -exec chmod 755 {} +
find "$tree" -type f -exec chmod 644 {} +
chmod 755 "$tree/usr/bin/lychnos" "$app/lychnos"
size=$(du -sk --apparent-size "$tree" | cut -f1)
sed -e "s/@VERSION@/$version/" -e "s/@SIZE@/$size/" "$ROOT/packaging/debian/control.in" >"$tree/DEBIAN/control"
cp "$ROOT/packaging/debian/templates" "$tree/DEBIAN/"
for script in postinst prerm postrm; do
  install -m 755 "$ROOT/packaging/debian/$script" "$tree/DEBIAN/$script"
done
find "$tree" -exec touch --no-dereference -d "@$committed" {} +
mkdir -p "$ROOT/target"
package=$ROOT/target/lychnos_${version}_all.deb
SOURCE_DATE_EPOCH=$committed dpkg-deb --root-owner-group -Zgzip --build "$tree" "$package" >/dev/null
say "built $package"
sha256sum "$package"
