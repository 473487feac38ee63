// Starts a program that can do less than this one: it gains no privileges, has limits, sees only the files that it was handed, starts no other
// process and reaches no network. What the kernel does not offer is left out; the program is told by HARDYBENCH_CONFINED, which has the word
// "files" where only those files can be opened, and "alone" where it can neither start processes nor reach the network.
//
// Usage: hardybench-confine [--data BYTES] [--file BYTES] [--open COUNT] [--read PATH]... [--write PATH]... -- PROGRAM [ARGUMENT]...
#define _GNU_SOURCE
#include <errno.h>
#include <fcntl.h>
#include <linux/audit.h>
#include <linux/filter.h>
#include <linux/landlock.h>
#include <linux/seccomp.h>
#include <sched.h>
#include <stddef.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/prctl.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <unistd.h>

enum { FAILED = 125 };

static const __u64 READ = LANDLOCK_ACCESS_FS_EXECUTE | LANDLOCK_ACCESS_FS_READ_FILE | LANDLOCK_ACCESS_FS_READ_DIR;
static const __u64 READ_A_FILE = LANDLOCK_ACCESS_FS_EXECUTE | LANDLOCK_ACCESS_FS_READ_FILE;

// All that the first version of the kernel's interface knows; later ones know more, which is then neither asked for nor forbidden.
static const __u64 ALL = (LANDLOCK_ACCESS_FS_MAKE_SYM << 1) - 1;

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

// What is not there cannot be handed and is left out.
static int hand(int rules, const char *path, __u64 access) {
  int at = open(path, O_PATH | O_CLOEXEC);
  if (at < 0) return 0;
  struct stat about;
  if (!fstat(at, &about) && !S_ISDIR(about.st_mode)) access &= READ_A_FILE | LANDLOCK_ACCESS_FS_WRITE_FILE;
  struct landlock_path_beneath_attr beneath = {.allowed_access = access, .parent_fd = at};
  int code = syscall(SYS_landlock_add_rule, rules, LANDLOCK_RULE_PATH_BENEATH, &beneath, 0);
  close(at);
  return code;
}

#if defined(__x86_64__)
enum { THIS_MACHINE = AUDIT_ARCH_X86_64, OTHER_CALLS = 0x40000000 };
#elif defined(__aarch64__)
enum { THIS_MACHINE = AUDIT_ARCH_AARCH64, OTHER_CALLS = 0x7fffffff };
#else
enum { THIS_MACHINE = 0, OTHER_CALLS = 0 };
#endif

#define REFUSE(error) BPF_STMT(BPF_RET | BPF_K, SECCOMP_RET_ERRNO | (error))
#define LOAD(field) BPF_STMT(BPF_LD | BPF_W | BPF_ABS, offsetof(struct seccomp_data, field))
#define UNLESS_CALL(number, skip) BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, (number), 0, (skip))

// Threads may be begun, processes not; of sockets only those within this machine. Whether clone3 begins a process cannot be seen here: libraries that
// are told there is none go on with clone.
static int stay_alone(void) {
  struct sock_filter calls[] = {
      LOAD(arch),
      BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, THIS_MACHINE, 1, 0),
      REFUSE(ENOSYS),
      LOAD(nr),
      BPF_JUMP(BPF_JMP | BPF_JGE | BPF_K, OTHER_CALLS, 0, 1),
      REFUSE(ENOSYS),
      UNLESS_CALL(SYS_clone3, 1),
      REFUSE(ENOSYS),
#ifdef SYS_fork
      UNLESS_CALL(SYS_fork, 1),
      REFUSE(EPERM),
      UNLESS_CALL(SYS_vfork, 1),
      REFUSE(EPERM),
#endif
      UNLESS_CALL(SYS_clone, 3),
      LOAD(args[0]),
      BPF_JUMP(BPF_JMP | BPF_JSET | BPF_K, CLONE_THREAD, 5, 0),
      REFUSE(EPERM),
      UNLESS_CALL(SYS_socket, 3),
      LOAD(args[0]),
      BPF_JUMP(BPF_JMP | BPF_JEQ | BPF_K, AF_UNIX, 1, 0),
      REFUSE(EACCES),
      BPF_STMT(BPF_RET | BPF_K, SECCOMP_RET_ALLOW),
  };
  struct sock_fprog filter = {.len = sizeof calls / sizeof *calls, .filter = calls};
  return THIS_MACHINE && !prctl(PR_SET_SECCOMP, SECCOMP_MODE_FILTER, &filter);
}

int main(int count, char **arguments) {
  struct landlock_ruleset_attr handled = {.handled_access_fs = ALL};
  int rules = syscall(SYS_landlock_create_ruleset, &handled, sizeof handled.handled_access_fs, 0);
  int next = 1;
  for (; next + 1 < count && strcmp(arguments[next], "--"); next += 2) {
    const char *name = arguments[next], *value = arguments[next + 1];
    int code = !strcmp(name, "--data") ? limit(RLIMIT_DATA, value)
        : !strcmp(name, "--file") ? limit(RLIMIT_FSIZE, value)
        : !strcmp(name, "--open") ? limit(RLIMIT_NOFILE, value)
        : strcmp(name, "--read") && strcmp(name, "--write") ? (errno = EINVAL, -1)
        : rules < 0 ? 0
        : hand(rules, value, name[2] == 'r' ? READ : ALL);
    if (code) return fail(name);
  }
  if (next + 1 >= count || strcmp(arguments[next], "--")) {
    fprintf(stderr, "hardybench-confine: nothing to start\n");
    return FAILED;
  }
  if (limit(RLIMIT_CORE, "0")) return fail("core");
  if (prctl(PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0)) return fail("privileges");
  int confined = rules >= 0 && !syscall(SYS_landlock_restrict_self, rules, 0);
  if (rules >= 0) close(rules);
  int alone = stay_alone();
  setenv("HARDYBENCH_CONFINED", confined ? alone ? "files alone" : "files" : alone ? "alone" : "", 1);
  execv(arguments[next + 1], arguments + next + 1);
  return fail(arguments[next + 1]);
}
