# Dowsing in fish: completion of its commands and of names, keys in the line, `dowsing save --last`.
# Made by `dowsing shell fish`; sourced by config.fish.

complete -c dowsing -f -a '(command dowsing shell complete --described -- (commandline -opc)[2..] (commandline -ct) 2>/dev/null)'

# The line that was run last is known to the shell alone.
function dowsing --wraps dowsing
    if string match -q -- '* save *--last *' " $argv "
        set -lx DOWSING_LAST_LINE $history[1]
        command dowsing $argv
    else
        command dowsing $argv
    end
end

# Below the line, which goes on below that as it is.
function _dowsing_below
    set -lx DOWSING_FROM_SHELL 1
    echo
    command dowsing --color always --width $COLUMNS $argv 2>&1
    commandline -f repaint
end
function _dowsing_next
    _dowsing_below next --limit 6 --at (commandline -C) -- (commandline -b | string collect)
end
function _dowsing_unpick
    _dowsing_below unpick -- (commandline -b | string collect)
end
function _dowsing_compose
    set -lx DOWSING_FROM_SHELL 1
    set -l line (command dowsing compose --at (commandline -C) -- (commandline -b | string collect) </dev/tty | string collect)
    if test $pipestatus[1] -eq 0 -a -n "$line"
        commandline -r -- $line
    end
    commandline -f repaint
end
function _dowsing_read
    set -lx DOWSING_FROM_SHELL 1
    echo
    command dowsing shell page --at (commandline -C) -- (commandline -b | string collect) </dev/tty
    commandline -f repaint
end

if status is-interactive
#key next     bind @KEY@ _dowsing_next; bind -M insert @KEY@ _dowsing_next
#key compose     bind @KEY@ _dowsing_compose; bind -M insert @KEY@ _dowsing_compose
#key unpick     bind @KEY@ _dowsing_unpick; bind -M insert @KEY@ _dowsing_unpick
#key read     bind @KEY@ _dowsing_read; bind -M insert @KEY@ _dowsing_read
end
