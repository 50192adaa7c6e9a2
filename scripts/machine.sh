# Sourced by ./start and ./test: finds which Debian packages are missing and installs them, as root or through sudo.
# need <program> <package>… remembers what is missing; install_needed installs it.

needed=()
need() {
	local program=$1; shift
	command -v "$program" >/dev/null 2>&1 || needed+=("$@")
}

need_server() {
	compgen -G '/usr/lib/postgresql/*/bin/postgres' >/dev/null || needed+=(postgresql)
}

need_fonts() {
	[ -d /usr/share/fonts/opentype/urw-base35 ] || needed+=(fonts-urw-base35)
	[ -d /usr/share/poppler ] || needed+=(poppler-data)
}

install_needed() {
	[ ${#needed[@]} -gt 0 ] || return 0
	local as=()
	if [ "$(id -u)" != 0 ]; then
		if command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then as=(sudo)
		else
			echo "Some Debian packages are missing. Run this line, then try again:" >&2
			echo "  sudo apt-get install -y ${needed[*]}" >&2
			exit 1
		fi
	fi
	echo "Installing from Debian: ${needed[*]}"
	# tests read PDFs from documentation, which lean machines leave out
	local apt=("${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get -qq -y -o Dpkg::Use-Pty=0 -o Dpkg::Options::=--path-include=/usr/share/doc/*)
	"${apt[@]}" update >/dev/null
	case " ${needed[*]} " in *" postgresql "*)
		# Debian's package makes and starts a cluster of its own; ours lives in the data folder, so leave that one unmade.
		if ! dpkg -s postgresql-common >/dev/null 2>&1; then
			"${apt[@]}" install --no-install-recommends postgresql-common >/dev/null
			"${as[@]}" sed -i 's/^#\? *create_main_cluster.*/create_main_cluster = false/' /etc/postgresql-common/createcluster.conf
		fi ;;
	esac
	"${apt[@]}" install --no-install-recommends "${needed[@]}" >/dev/null
}

# nginx, as Debian has it, without a service that begins on this machine: scripts/nginx.ts starts it for tests and figures.
need_nginx() {
	[ -x /usr/sbin/nginx ] || [ -x .tools/nginx/usr/sbin/nginx ] || (
		mkdir -p .tools/nginx/_debs && cd .tools/nginx/_debs
		apt-get -qq download nginx 2>/dev/null || { apt-get -qq update >/dev/null; apt-get -qq download nginx 2>/dev/null; }
		dpkg -x nginx_*.deb .. && rm nginx_*.deb
	)
}

# npm ci, only when the lock file changed since the last time.
install_modules() {
	local want
	want=$(sha256sum package-lock.json | cut -d' ' -f1)
	if [ "$(cat node_modules/.ianua-lock 2>/dev/null)" != "$want" ]; then
		echo "Installing node modules"
		npm ci --ignore-scripts --no-audit --no-fund --loglevel=error
		echo "$want" >node_modules/.ianua-lock
	fi
}

check_node() {
	local version
	version=$(node -p '(([a, b]) => +a * 100 + +b)(process.versions.node.split("."))' 2>/dev/null || echo 0)
	[ "$version" -ge 2019 ] || { echo "Ianua needs Node 20.19 or newer; this machine has $(node --version 2>/dev/null || echo none)." >&2; exit 1; }
}
