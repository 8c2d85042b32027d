# Dowsing in zsh: completion of its commands and of names, keys in the line, `dowsing save --last`.
# Made by `dowsing shell zsh`; sourced by ~/.zshrc.

_dowsing_found() { command dowsing shell complete -- "$@" 2>/dev/null }
if (( $+functions[compdef] )); then
  _dowsing() {
    local -a found
    found=("${(@f)$(_dowsing_found "${(@)words[2,CURRENT]}")}")
    [[ -n $found[1] ]] && compadd -a found || _files
  }
  compdef _dowsing dowsing
else
  _dowsing_list() {
    local -a typed
    local place
    read -cA typed; read -cn place
    reply=("${(@f)$(_dowsing_found "${(@)typed[2,place]}")}")
  }
  compctl -K _dowsing_list + -f dowsing
fi

# The line that was run last is known to the shell alone.
dowsing() {
  if [[ " $* " == *" save "*"--last "* ]]; then
    DOWSING_LAST_LINE=$(fc -ln -1 -1 2>/dev/null) command dowsing "$@"
  else
    command dowsing "$@"
  fi
}

_dowsing_said() {
  DOWSING_FROM_SHELL=1 command dowsing --color never --width ${COLUMNS:-80} "$@" </dev/null 2>&1
}
# Below the line, which stays as it is; gone with the next key.
_dowsing_next() {
  local text=$(_dowsing_said next --limit 6 --at $CURSOR -- "$BUFFER")
  local -a lines=("${(@f)text}")
  (( $#lines > LINES - 3 )) && lines=("${(@)lines[1,LINES-4]}" "   …")
  zle -M -- "${(F)lines}"
}
_dowsing_unpick() {
  local text=$(_dowsing_said unpick -- "$BUFFER")
  zle -I
  print -r -- "$text"
}
_dowsing_compose() {
  local line
  if line=$(DOWSING_FROM_SHELL=1 command dowsing compose --at $CURSOR -- "$BUFFER" </dev/tty); then
    BUFFER=$line
    CURSOR=$#BUFFER
  fi
  zle reset-prompt
}
_dowsing_read() {
  zle -I
  DOWSING_FROM_SHELL=1 command dowsing shell page --at $CURSOR -- "$BUFFER" </dev/tty
}

if [[ -o interactive ]]; then
  zle -N _dowsing_next; zle -N _dowsing_compose; zle -N _dowsing_unpick; zle -N _dowsing_read
  for _dowsing_map in emacs viins; do
#key next     bindkey -M $_dowsing_map '@KEY@' _dowsing_next
#key compose     bindkey -M $_dowsing_map '@KEY@' _dowsing_compose
#key unpick     bindkey -M $_dowsing_map '@KEY@' _dowsing_unpick
#key read     bindkey -M $_dowsing_map '@KEY@' _dowsing_read
    :
  done
  unset _dowsing_map
fi
