"""What is never run for its usage, whatever the guard holds off: one line that says why, or
None.
"""

from __future__ import annotations

import os
import stat

from dowsing.machine.links import follow

#: Programs whose slip cannot be undone. A pattern that ends with `*` takes in all names that begin
#: so.
_NEVER = {
    "it turns the machine off or restarts it": """
        shutdown reboot halt poweroff init telinit kexec rtcwake pm-* runlevel systemd-shutdown
        hibernate
        suspend zzz
    """,
    "it changes disks and file systems": """
        mkfs mkfs.* mke2fs mkswap mkdosfs mkntfs mkudffs fdisk sfdisk cfdisk gdisk sgdisk cgdisk
        parted partprobe wipefs
        blkdiscard hdparm sdparm nvme badblocks fsck fsck.* e2fsck xfs_repair resize2fs tune2fs
        debugfs swapon swapoff
        losetup cryptsetup dmsetup mdadm lvm lvremove vgremove pvremove lvcreate vgcreate pvcreate
        lvreduce zpool zfs
        diskutil newfs newfs_* umount mount pivot_root switch_root shred format mformat
    """,
    "it changes accounts": """
        useradd userdel usermod groupadd groupdel groupmod adduser deluser addgroup delgroup passwd
        chpasswd chgpasswd
        gpasswd newusers vipw vigr visudo chsh chfn chage pwconv pwunconv grpconv grpunconv su sudo
        doas login newgrp
        runuser pam-auth-update dscl sysadminctl faillock
    """,
    "it installs and removes packages": """
        apt apt-get aptitude dpkg dpkg-* rpm dnf dnf5 yum zypper pacman apk emerge xbps-* pkg pkg_*
        pkgrm pkgadd snap
        flatpak brew port nix-env nix-collect-garbage deborphan tasksel unattended-upgrade*
        do-release-upgrade rpm-ostree
    """,
    "it changes how the machine starts": """
        grub-* grub2-* update-grub* lilo efibootmgr bootctl update-initramfs mkinitramfs dracut
        mkinitcpio flashrom
        fwupdmgr nvram insmod rmmod modprobe depmod sysctl
    """,
}


def never_run(name: str) -> str | None:
    """Why a program of that name is not run, or None."""
    for reason, names in _NEVER.items():
        for pattern in names.split():
            if name == pattern or (pattern.endswith("*") and name.startswith(pattern[:-1])):
                return reason
    return None


def refusal(path: str, search_path: list[str]) -> str | None:
    """Why the program at `path` is not run, or None if it may be.

    It must be an executable file that stands in a folder of PATH given from the root; neither it
    nor what its links lead to may be on the list or run with another's rights.
    """
    if not os.path.isabs(path) or os.path.dirname(path) not in [
        os.path.normpath(folder) for folder in search_path
    ]:
        return "it is not in a folder of PATH"
    real = os.path.realpath(path)
    # a program may do what the name of any link on the way to it says
    for one in dict.fromkeys(
        (path, *(step.path for step in follow(path)[0] if not step.folder), real)
    ):
        reason = never_run(os.path.basename(one))
        if reason:
            return reason if one == path else f"it leads to {one}: {reason}"
    try:
        state = os.stat(real)
    except OSError as error:
        return (error.strerror or "it cannot be looked at").lower()
    if not stat.S_ISREG(state.st_mode):
        return "it is not a file"
    if state.st_mode & (stat.S_ISUID | stat.S_ISGID):
        return "it runs with the rights of another user (set-uid)"
    if not os.access(real, os.X_OK):
        return "it may not be executed"
    return None
