# Dowsing in bash: completion of its commands and of names, keys in the line, `dowsing save --last`.
# Made by `dowsing shell bash`; sourced by ~/.bashrc.

_dowsing_complete() {
  local word=${COMP_WORDS[COMP_CWORD]} found
  COMPREPLY=()
  while IFS= read -r found; do
    # what the shell would take for itself is quoted; within quotes that are open already it is left out
    if [[ $found == *[!a-zA-Z0-9_.,:/@%+=-]* ]]; then
      [[ $word == [\'\"]* ]] && continue
      printf -v found %q "$found"
    fi
    COMPREPLY+=("$found")
  done < <(command dowsing shell complete -- "${COMP_WORDS[@]:1:COMP_CWORD}" 2>/dev/null)
  [[ ${#COMPREPLY[@]} -eq 1 && ${COMPREPLY[0]} == */ ]] && compopt -o nospace
  return 0
}
complete -o bashdefault -o default -F _dowsing_complete dowsing

# The line that was run last is known to the shell alone.
dowsing() {
  if [[ " $* " == *" save "*"--last "* ]]; then
    DOWSING_LAST_LINE=$(HISTTIMEFORMAT= builtin fc -ln -1 -1 2>/dev/null) command dowsing "$@"
  else
    command dowsing "$@"
  fi
}

# Print below the line what a command of ours says of it; the line itself goes on below that, as it is.
_dowsing_below() {
  local prompt=${PS1@P} text
  text=$(DOWSING_FROM_SHELL=1 command dowsing --color "${_dowsing_color:-always}" --width "${COLUMNS:-80}" "$@" 2>&1)
  printf '%s%s\n%s\n' "${prompt//[$'\001\002']/}" "$READLINE_LINE" "$text"
}
_dowsing_next() { _dowsing_below next --limit 6 --at "$READLINE_POINT" -- "$READLINE_LINE"; }
_dowsing_unpick() { _dowsing_below unpick -- "$READLINE_LINE"; }
_dowsing_compose() {
  local line
  line=$(DOWSING_FROM_SHELL=1 command dowsing compose --at "$READLINE_POINT" -- "$READLINE_LINE") || return 0
  READLINE_LINE=$line
  READLINE_POINT=${#line}
}
_dowsing_read() { DOWSING_FROM_SHELL=1 command dowsing shell page --at "$READLINE_POINT" -- "$READLINE_LINE"; }

if [[ $- == *i* ]]; then
  [[ -n ${NO_COLOR-} ]] && _dowsing_color=never
  for _dowsing_map in emacs-standard vi-insert; do
#key next     bind -m "$_dowsing_map" -x '"@KEY@": _dowsing_next'
#key compose     bind -m "$_dowsing_map" -x '"@KEY@": _dowsing_compose'
#key unpick     bind -m "$_dowsing_map" -x '"@KEY@": _dowsing_unpick'
#key read     bind -m "$_dowsing_map" -x '"@KEY@": _dowsing_read'
    :
  done 2>/dev/null
  unset _dowsing_map
fi
