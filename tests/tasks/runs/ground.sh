umask 022
printf 'pear\napple\nfig\napple\n' > a.txt
printf '10\n9\n2\n10\n' > n.txt
printf '2M\n1G\n3K\n' > h.txt
printf 'v1.10\nv1.2\nv1.9\n' > v.txt
printf 'apple\nBanana\ncherry\n' > caps.txt
printf 'Dec\nJan\nMar\n' > months.txt
printf 'a\nc\n' > sorted.txt
printf 'b\nd\n' > sorted2.txt
printf 'pear\n' > pear.txt
printf 'ana 3 x\nbo 1 y\ncy 2 x\n' > t.txt
printf 'a:b\n' > colon.txt
printf 'name,age,city\nana,30,Ulm\nbo,25,Linz\n' > c.csv
printf 'a,b' > line.csv
printf 'k\tv\na\t1\nb\t2\n' > t.tsv
printf 'a 1\nb 2\n' > k1.txt
printf 'a x\nc y\n' > k2.txt
printf 'The cat saw the dog.\nthe end\n' > words.txt
printf 'ok one\nERROR two\nok three\nERROR four\n' > l.log
gzip -k l.log
printf 'g\n' > g.txt && gzip g.txt
printf 'aa bb cc dd ee ff\nx\n' > long.txt
printf 'a\n\nb\n  \nc\n' > blank.txt
printf 'a\r\nb\r\n' > win.txt
printf '\tx\n' > tab.txt
printf '    x\n' > four.txt
printf 'a    b\n' > wide.txt
printf 'a b\n' > narrow.txt
printf '# c\n\nk=v\n' > conf.ini
printf '[{"name":"bo","n":2},{"name":"ana","n":1}]' > j.json
printf '{"k":"v","m":1}' > o.json
printf '{"k":"w"}' > o2.json
printf '<p>hi <b>you</b></p>\n' > p.html
printf 'write to a@b.example or see https://x.example/y "now" 10.0.0.1\n' > mail.txt
printf 'a  \nb\t\n' > s.txt
printf 'ä\n' > latin.txt
printf '\344\n' > latin1.txt
printf '\001\002readable\000\003' > bin.dat
printf '00000000: 7065 6172                                pear\n' > dump.hex
printf 'YQpjCg==\n' > b64.txt
printf 'print 1;\n' > ok.pl
: > empty
: > 'b c.txt'
: > .dotfile
printf 'echo hi\n' > run.sh
printf 'echo hi\n' > tool.sh && chmod 755 tool.sh
printf 'x\n' > private.txt && chmod 600 private.txt
mkdir -p d/sub d/emptydir e same locked
printf '1\n' > d/one.txt
printf '22\n' > d/two.txt
printf '333\n' > d/sub/three.md
: > d/.hid
: > d/empty.txt
printf 'old\n' > d/old.log && touch -d '2020-01-01 12:00' d/old.log
head -c 204800 /dev/zero > d/big.bin
printf '1\n' > e/one.txt
printf 'other\n' > e/two.txt
printf 'alike\n' > same/1 && cp same/1 same/2 && printf 'not\n' > same/3
printf 'x\n' > locked/f && chmod 600 locked/f && chmod 700 locked
ln -s a.txt link
ln -s nowhere broken
tar -cf k.tar d && gzip -k k.tar
tar -czf k2.tar.gz e
printf 'x\n' > c.txt && xz c.txt
printf 'y\n' > b.txt && bzip2 b.txt
if command -v zip; then zip -qr k.zip d; zip -qr k2.zip e; fi
if command -v zstd; then printf 'z\n' > z && zstd -q --rm z -o z.zst; fi
sha256sum a.txt > SHA256SUMS
printf -- '--- a/d/one.txt\n+++ b/d/one.txt\n@@ -1 +1 @@\n-1\n+one\n' > change.patch
printf 'all:\n\ttouch made\n' > Makefile
printf '#include <stdio.h>\nint main(void) { puts("hi"); return 0; }\n' > hi.c
if command -v sqlite3; then sqlite3 s.db 'create table t(n int); insert into t values (1), (2);'; fi
if command -v openssl; then openssl req -x509 -newkey rsa:2048 -nodes -keyout key.pem -out cert.pem -days 2 -subj /CN=fern.example; fi
if command -v git; then
  git config --global user.name Fern
  git config --global user.email fern@garden.example
  git config --global init.defaultBranch main
  git init -q g
  cd g
  printf 'one\n' > a.txt
  git add a.txt
  git commit -qm first
  git tag old
  printf 'two\n' >> a.txt
  git commit -qam second
  git switch -qc side
  printf 'b\n' > b.txt
  git add b.txt
  git commit -qm third
  git switch -q main
  printf 'three\n' >> a.txt
  printf 'new\n' > new.txt
fi
