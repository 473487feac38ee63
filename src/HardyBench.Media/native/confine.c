// Starts a program that can do less than this one. It gains no privileges and has none, has limits, opens only the files that it was handed, starts no
// process, reaches no network and no socket, and cannot signal, trace or change anything outside itself. What the kernel does not offer is left out; the
// program reads in HARDYBENCH_CONFINED what is in force: "files" where only those files can be opened, "alone" where only the listed system calls are
// left, "apart" where it has a network and message queues of its own, and "landlock=N" with the version of the kernel's file rules.
//
// Usage: hardybench-confine [--data BYTES] [--as BYTES] [--cpu SECONDS] [--file BYTES] [--open COUNT] [--scratch DIR]
//            [--read PATH]... [--write PATH]... [--device PATH]... [--watch 1] -- PROGRAM [ARGUMENT]...
// With --watch this process stays, passes on how the program ended, and ends it when the process that started this one is gone.
#define _GNU_SOURCE
#include <errno.h>
#include <fcntl.h>
#include <linux/audit.h>
#include <linux/capability.h>
#include <linux/filter.h>
#include <linux/landlock.h>
#include <linux/seccomp.h>
#include <poll.h>
#include <sched.h>
#include <signal.h>
#include <stddef.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mount.h>
#include <sys/prctl.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <sys/wait.h>
#include <unistd.h>

enum { FAILED = 125, MOST_RULES = 1024 };

// The kernel's interface by version (Linux documentation, userspace-api/landlock); headers of a distribution can be older than its kernel.
enum { REFER = 1 << 13, TRUNCATE = 1 << 14, IOCTL_DEVICE = 1 << 15 };
enum { BIND_TCP = 1 << 0, CONNECT_TCP = 1 << 1 };
enum { ABSTRACT_SOCKETS = 1 << 0, SIGNALS = 1 << 1 };
struct ruleset {
  __u64 files, network, scoped;
};

static const __u64 READ = LANDLOCK_ACCESS_FS_EXECUTE | LANDLOCK_ACCESS_FS_READ_FILE | LANDLOCK_ACCESS_FS_READ_DIR;
static const __u64 OF_A_FILE = LANDLOCK_ACCESS_FS_EXECUTE | LANDLOCK_ACCESS_FS_READ_FILE | LANDLOCK_ACCESS_FS_WRITE_FILE | TRUNCATE | IOCTL_DEVICE;

static int fail(const char *what) {
  fprintf(stderr, "hardybench-confine: %s: %s\n", what, strerror(errno));
  return FAILED;
}

static int limit(int resource, const char *text) {
  char *end;
  errno = 0;
  unsigned long long most = strtoull(text, &end, 10);
  if (errno || *end || end == text) {
    errno = EINVAL;
    return -1;
  }
  struct rlimit to;
  if (getrlimit(resource, &to)) return -1;
  // A limit that stands already is never raised.
  if (to.rlim_max != RLIM_INFINITY && to.rlim_max < most) most = to.rlim_max;
  to.rlim_cur = to.rlim_max = most;
  return setrlimit(resource, &to);
}

static int rules_version(void) {
  int version = syscall(SYS_landlock_create_ruleset, NULL, 0, LANDLOCK_CREATE_RULESET_VERSION);
  return version < 0 ? 0 : version;
}

// All that this version of the kernel can forbid.
static struct ruleset everything(int version) {
  struct ruleset all = {.files = (LANDLOCK_ACCESS_FS_MAKE_SYM << 1) - 1};
  if (version >= 2) all.files |= REFER;
  if (version >= 3) all.files |= TRUNCATE;
  if (version >= 4) all.network = BIND_TCP | CONNECT_TCP;
  if (version >= 5) all.files |= IOCTL_DEVICE;
  if (version >= 6) all.scoped = ABSTRACT_SOCKETS | SIGNALS;
  return all;
}

static size_t size_of(int version) { return version >= 6 ? sizeof(struct ruleset) : version >= 4 ? 2 * sizeof(__u64) : sizeof(__u64); }

// What is not there cannot be handed and is left out. The directory stays open, so that the kernel does not forget it while the program runs.
static int hand(int rules, const char *path, __u64 access) {
  int at = open(path, O_PATH);
  if (at < 0) return 0;
  struct stat about;
  if (!fstat(at, &about) && !S_ISDIR(about.st_mode)) access &= OF_A_FILE;
  struct landlock_path_beneath_attr beneath = {.allowed_access = access, .parent_fd = at};
  int code = syscall(SYS_landlock_add_rule, rules, LANDLOCK_RULE_PATH_BENEATH, &beneath, 0);
  if (strncmp(path, "/proc/", 6)) close(at);
  return code;
}

static int put(const char *path, const char *text) {
  int at = open(path, O_WRONLY | O_CLOEXEC);
  if (at < 0) return -1;
  int code = write(at, text, strlen(text)) < 0;
  close(at);
  return code;
}

// A network without any interface, message queues of its own and mounts of its own; as the same user, so that files stay reachable. Then a folder of
// its own in memory, whose size is bounded.
static int move_apart(const char *scratch) {
  unsigned user = geteuid(), group = getegid();
  char map[64];
  if (unshare(CLONE_NEWUSER | CLONE_NEWNET | CLONE_NEWIPC | CLONE_NEWNS)) return 0;
  put("/proc/self/setgroups", "deny");
  snprintf(map, sizeof map, "%u %u 1", user, user);
  put("/proc/self/uid_map", map);
  snprintf(map, sizeof map, "%u %u 1", group, group);
  put("/proc/self/gid_map", map);
  if (scratch && !mount(NULL, "/", NULL, MS_REC | MS_PRIVATE, NULL)
      && !mount("hardybench", scratch, "tmpfs", MS_NOSUID | MS_NODEV, "size=256m,nr_inodes=8192,mode=0700"))
    if (chdir(scratch)) return 0;
  return 1;
}

// Root without privileges is a user like any other, but for the files that it owns.
static void drop_privileges(void) {
  for (int one = 0; prctl(PR_CAPBSET_READ, one, 0, 0, 0) >= 0; one++) prctl(PR_CAPBSET_DROP, one, 0, 0, 0);
  struct __user_cap_header_struct head = {.version = _LINUX_CAPABILITY_VERSION_3};
  struct __user_cap_data_struct none[2] = {{0}};
  prctl(PR_CAP_AMBIENT, PR_CAP_AMBIENT_CLEAR_ALL, 0, 0, 0);
  syscall(SYS_capset, &head, none);
}

#if defined(__x86_64__)
enum { THIS_MACHINE = AUDIT_ARCH_X86_64, OTHER_CALLS = 0x40000000 };
#elif defined(__aarch64__)
enum { THIS_MACHINE = AUDIT_ARCH_AARCH64, OTHER_CALLS = 0x7fffffff };
#else
enum { THIS_MACHINE = 0, OTHER_CALLS = 0 };
#endif

// Calls that are allowed with any arguments: reading and writing what is open, opening and naming files (which the file rules bound), memory, threads,
// waiting, clocks, and what asks about the program itself. All else is refused, calls of kernels to come too.
static const int ALLOWED[] = {
    SYS_read, SYS_write, SYS_readv, SYS_writev, SYS_pread64, SYS_pwrite64, SYS_preadv, SYS_pwritev, SYS_preadv2, SYS_pwritev2, SYS_lseek, SYS_close,
    SYS_close_range, SYS_fstat, SYS_newfstatat, SYS_statx, SYS_statfs, SYS_fstatfs, SYS_openat, SYS_openat2, SYS_faccessat, SYS_faccessat2,
    SYS_readlinkat, SYS_getdents64, SYS_getcwd, SYS_chdir, SYS_fcntl, SYS_flock, SYS_fsync, SYS_fdatasync, SYS_ftruncate, SYS_fallocate, SYS_fadvise64,
    SYS_readahead, SYS_sendfile, SYS_copy_file_range, SYS_mkdirat, SYS_unlinkat, SYS_renameat, SYS_renameat2, SYS_umask, SYS_ioctl, SYS_dup, SYS_dup3,
    SYS_pipe2, SYS_eventfd2, SYS_timerfd_create, SYS_timerfd_settime, SYS_epoll_create1, SYS_epoll_ctl, SYS_epoll_pwait, SYS_epoll_pwait2, SYS_ppoll,
    SYS_pselect6, SYS_mmap, SYS_mprotect, SYS_munmap, SYS_mremap, SYS_msync, SYS_mincore, SYS_madvise, SYS_mlock, SYS_munlock, SYS_brk, SYS_mbind,
    SYS_get_mempolicy, SYS_set_mempolicy, SYS_memfd_create, SYS_membarrier, SYS_futex, SYS_futex_waitv, SYS_set_robust_list, SYS_get_robust_list,
    SYS_set_tid_address, SYS_rseq, SYS_exit, SYS_exit_group, SYS_wait4, SYS_waitid, SYS_execve, SYS_sched_yield, SYS_sched_getaffinity,
    SYS_sched_getparam, SYS_sched_getscheduler, SYS_sched_get_priority_max, SYS_sched_get_priority_min, SYS_sched_rr_get_interval, SYS_getpriority,
    SYS_getcpu, SYS_nanosleep, SYS_clock_nanosleep, SYS_clock_gettime, SYS_clock_getres, SYS_gettimeofday, SYS_times, SYS_getrusage, SYS_sysinfo,
    SYS_uname, SYS_getpid, SYS_getppid, SYS_gettid, SYS_getpgid, SYS_getsid, SYS_getuid, SYS_geteuid, SYS_getgid, SYS_getegid, SYS_getresuid,
    SYS_getresgid, SYS_getgroups, SYS_rt_sigaction, SYS_rt_sigprocmask, SYS_rt_sigreturn, SYS_rt_sigtimedwait, SYS_rt_sigpending, SYS_rt_sigsuspend,
    SYS_sigaltstack, SYS_restart_syscall, SYS_getrandom, SYS_prctl, SYS_capget,
#if defined(__x86_64__)
    SYS_open, SYS_stat, SYS_lstat, SYS_access, SYS_readlink, SYS_getdents, SYS_mkdir, SYS_rmdir, SYS_unlink, SYS_rename, SYS_creat, SYS_dup2, SYS_pipe,
    SYS_eventfd, SYS_epoll_create, SYS_epoll_wait, SYS_poll, SYS_select, SYS_time, SYS_getpgrp, SYS_arch_prctl, SYS_alarm, SYS_getrlimit,
#endif
};

#define REFUSE(error) BPF_STMT(BPF_RET | BPF_K, SECCOMP_RET_ERRNO | (error))
#define ALLOW BPF_STMT(BPF_RET | BPF_K, SECCOMP_RET_ALLOW)
#define LOAD(field) BPF_STMT(BPF_LD | BPF_W | BPF_ABS, offsetof(struct seccomp_data, field))

// What a call's first argument, of 32 bits, has to be for it to be allowed.
static size_t only_if(struct sock_filter *at, int call, __u32 first) {
  const struct sock_filter rule[] = {
      BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, (__u32)call, 0, 4),
      LOAD(args[0]),
      BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, first, 0, 1),
      ALLOW,
      REFUSE(EPERM),
  };
  memcpy(at, rule, sizeof rule);
  return sizeof rule / sizeof *rule;
}

// Threads may be begun, processes not. Whether clone3 begins a process cannot be seen here: libraries that are told there is none go on with clone.
static int stay_alone(void) {
  _Static_assert(2 * sizeof ALLOWED / sizeof *ALLOWED + 64 < MOST_RULES, "more calls than there is room for");
  struct sock_filter calls[MOST_RULES];
  size_t count = 0;
  const struct sock_filter head[] = {
      LOAD(arch),
      BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, THIS_MACHINE, 1, 0),
      REFUSE(ENOSYS),
      LOAD(nr),
      BPF_JUMP(BPF_JMP | BPF_JGE | BPF_K, OTHER_CALLS, 0, 1),
      REFUSE(ENOSYS),
      BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, SYS_clone, 0, 6),
      LOAD(args[0]),
      BPF_JUMP(BPF_JMP | BPF_JSET | BPF_K, CLONE_THREAD, 0, 3),
      BPF_JUMP(BPF_JMP | BPF_JSET | BPF_K,
          CLONE_NEWNS | CLONE_NEWCGROUP | CLONE_NEWUTS | CLONE_NEWIPC | CLONE_NEWUSER | CLONE_NEWPID | CLONE_NEWNET, 2, 0),
      ALLOW,
      REFUSE(EPERM),
      REFUSE(EPERM),
  };
  memcpy(calls, head, sizeof head);
  count += sizeof head / sizeof *head;
  // Signals to itself, limits and priorities of itself. A priority is set for a thread: 0 is the one that asks, and others are reached by number.
  const __u32 self = (__u32)getpid();
  count += only_if(calls + count, SYS_tgkill, self);
  count += only_if(calls + count, SYS_kill, self);
  count += only_if(calls + count, SYS_prlimit64, 0);
  count += only_if(calls + count, SYS_sched_setaffinity, 0);
  count += only_if(calls + count, SYS_setpriority, 0);
  for (size_t i = 0; i < sizeof ALLOWED / sizeof *ALLOWED; i++) {
    // A jump reaches no further than a byte says, so each call is answered at once.
    calls[count++] = (struct sock_filter)BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, (__u32)ALLOWED[i], 0, 1);
    calls[count++] = (struct sock_filter)ALLOW;
  }
  calls[count++] = (struct sock_filter)REFUSE(ENOSYS);
  struct sock_fprog filter = {.len = (unsigned short)count, .filter = calls};
  return THIS_MACHINE && !prctl(PR_SET_SECCOMP, SECCOMP_MODE_FILTER, &filter);
}

// Stays beside the program: ends it when whoever asked for it is gone, and says how it ended.
static int watch(pid_t program, int asker) {
  int ended = syscall(SYS_pidfd_open, program, 0);
  struct pollfd both[] = {{.fd = ended, .events = POLLIN}, {.fd = asker, .events = POLLIN}};
  while (ended >= 0 && poll(both, 2, -1) < 0 && errno == EINTR) {
  }
  if (!(both[0].revents & POLLIN) && both[1].revents) kill(program, SIGKILL);
  int status;
  while (waitpid(program, &status, 0) < 0)
    if (errno != EINTR) return FAILED;
  return WIFEXITED(status) ? WEXITSTATUS(status) : 128 + WTERMSIG(status);
}

int main(int count, char **arguments) {
  int version = rules_version();
  struct ruleset handled = everything(version);
  int rules = version ? (int)syscall(SYS_landlock_create_ruleset, &handled, size_of(version), 0) : -1;
  const char *scratch = NULL;
  int watched = 0, next = 1;
  // First what comes before the rules: the folder in memory has to be there when it is handed.
  for (int at = 1; at + 1 < count && strcmp(arguments[at], "--"); at += 2) {
    if (!strcmp(arguments[at], "--scratch")) scratch = arguments[at + 1];
    if (!strcmp(arguments[at], "--watch")) watched = 1;
  }
  if (watched) {
    int asker = syscall(SYS_pidfd_open, getppid(), 0);
    pid_t program = fork();
    if (program < 0) return fail("start");
    if (program > 0) return watch(program, asker);
    if (asker >= 0) close(asker);
    prctl(PR_SET_PDEATHSIG, SIGKILL, 0, 0, 0);
  }
  // Who may do so now may let the program raise its own priority later; a limit that cannot be raised stands.
  struct rlimit nice = {.rlim_cur = 30, .rlim_max = 30};
  setrlimit(RLIMIT_NICE, &nice);
  int apart = move_apart(scratch);
  for (; next + 1 < count && strcmp(arguments[next], "--"); next += 2) {
    const char *name = arguments[next], *value = arguments[next + 1];
    int code = !strcmp(name, "--data") ? limit(RLIMIT_DATA, value)
        : !strcmp(name, "--as") ? limit(RLIMIT_AS, value)
        : !strcmp(name, "--cpu") ? limit(RLIMIT_CPU, value)
        : !strcmp(name, "--file") ? limit(RLIMIT_FSIZE, value)
        : !strcmp(name, "--open") ? limit(RLIMIT_NOFILE, value)
        : !strcmp(name, "--watch") ? 0
        : !strcmp(name, "--read") ? rules < 0 ? 0 : hand(rules, value, READ & handled.files)
        : !strcmp(name, "--write") || !strcmp(name, "--scratch") ? rules < 0 ? 0 : hand(rules, value, handled.files & ~(__u64)IOCTL_DEVICE)
        : !strcmp(name, "--device") ? rules < 0 ? 0 : hand(rules, value, (READ | OF_A_FILE) & handled.files)
        : (errno = EINVAL, -1);
    if (code) return fail(name);
  }
  if (next + 1 >= count || strcmp(arguments[next], "--")) {
    fprintf(stderr, "hardybench-confine: nothing to start\n");
    return FAILED;
  }
  if (limit(RLIMIT_CORE, "0")) return fail("core");
  drop_privileges();
  if (prctl(PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0)) return fail("privileges");
  int confined = rules >= 0 && !syscall(SYS_landlock_restrict_self, rules, 0);
  if (rules >= 0) close(rules);
  char state[64];
  // Set before the last step, after which nothing but the program's start is needed.
  int alone = THIS_MACHINE != 0;
  snprintf(state, sizeof state, "%s%s%slandlock=%d", confined ? "files " : "", alone ? "alone " : "", apart ? "apart " : "", confined ? version : 0);
  setenv("HARDYBENCH_CONFINED", state, 1);
  if (alone && !stay_alone()) {
    snprintf(state, sizeof state, "%s%slandlock=%d", confined ? "files " : "", apart ? "apart " : "", confined ? version : 0);
    setenv("HARDYBENCH_CONFINED", state, 1);
  }
  execv(arguments[next + 1], arguments + next + 1);
  return fail(arguments[next + 1]);
}
