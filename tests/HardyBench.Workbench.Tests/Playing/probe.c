// Tries everything that a confined program must not be able to do, and prints a line for each attempt: "refused NAME" or "DONE NAME".
// Usage: probe PROCESS FILE SOCKET ABSTRACT PORT SCRATCH [gently]: gently leaves out what would do harm where it is not refused
#define _GNU_SOURCE
#include <arpa/inet.h>
#include <errno.h>
#include <fcntl.h>
#include <sched.h>
#include <signal.h>
#include <stddef.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mount.h>
#include <sys/ptrace.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <sys/uio.h>
#include <sys/un.h>
#include <sys/xattr.h>
#include <unistd.h>

static void tried(const char *name, long code) {
  printf("%s %s\n", code < 0 ? "refused" : "DONE", name);
  fflush(stdout);
}

static int reach(const char *name, int abstract) {
  struct sockaddr_un to = {.sun_family = AF_UNIX};
  size_t length = strlen(name);
  memcpy(to.sun_path + abstract, name, length);
  int at = socket(AF_UNIX, SOCK_STREAM, 0);
  return at < 0 ? -1 : connect(at, (struct sockaddr *)&to, offsetof(struct sockaddr_un, sun_path) + length + abstract);
}

static int reach_port(int port) {
  struct sockaddr_in to = {.sin_family = AF_INET, .sin_port = htons(port), .sin_addr = {htonl(INADDR_LOOPBACK)}};
  int at = socket(AF_INET, SOCK_STREAM, 0);
  return at < 0 ? -1 : connect(at, (struct sockaddr *)&to, sizeof to);
}

static int fill(const char *folder) {
  static char block[1 << 20];
  char name[512];
  for (int file = 0; file < 8; file++) {
    snprintf(name, sizeof name, "%s/fill-%d", folder, file);
    int at = open(name, O_CREAT | O_WRONLY, 0600);
    if (at < 0) return -1;
    for (int part = 0; part < 60; part++)
      if (write(at, block, sizeof block) < (ssize_t)sizeof block) return -1;
  }
  return 0;
}

static int fork_raw(void) {
  long child = syscall(SYS_clone, SIGCHLD, 0, 0, 0, 0);
  if (child == 0) _exit(0);
  return (int)child;
}

int main(int count, char **given) {
  if (count < 7) return 2;
  int gently = count > 7;
  pid_t process = atoi(given[1]);
  const char *file = given[2];
  char path[64], byte;
  struct rlimit most = {1, 1};
  struct iovec here = {&byte, 1}, there = {(void *)0x400000, 1};
  tried("open a file", open(file, O_RDONLY));
  tried("write a file", open(file, O_WRONLY));
  tried("truncate by path", truncate(file, 0));
  if (!gently) tried("chmod", chmod(file, 0777));
  if (!gently) tried("fchmodat", fchmodat(AT_FDCWD, file, 0777, 0));
  if (!gently) tried("chown", chown(file, 1, 1));
  tried("utimes", utimensat(AT_FDCWD, file, NULL, 0));
  tried("setxattr", setxattr(file, "user.probe", "x", 1, 0));
  if (!gently) tried("unlink", unlink(file));
  if (!gently) tried("rename", rename(file, "/tmp/probe-renamed"));
  tried("link", link(file, "/tmp/probe-linked"));
  tried("symlink", symlink(file, "/tmp/probe-symlink"));
  tried("make a file elsewhere", open("/tmp/probe-made", O_CREAT | O_WRONLY, 0600));
  tried("make a file in shared memory", open("/dev/shm/probe-made", O_CREAT | O_WRONLY, 0600));
  if (!gently) tried("list of passwords", open("/etc/shadow", O_RDONLY));
  snprintf(path, sizeof path, "/proc/%d/environ", process);
  tried("environment of another process", open(path, O_RDONLY));
  snprintf(path, sizeof path, "/proc/%d/mem", process);
  tried("memory of another process", open(path, O_RDONLY));
  snprintf(path, sizeof path, "/proc/%d/task/%d/environ", process, process);
  int environment = open(path, O_RDONLY);
  tried("environment of another thread", environment < 0 ? -1 : read(environment, &byte, 1));
  tried("signal another process", kill(process, 0));
  tried("signal a thread of another process", syscall(SYS_tgkill, process, process, 0));
  tried("signal by number of a thread", syscall(SYS_tkill, process, 0));
  int other = syscall(SYS_pidfd_open, process, 0);
  tried("signal by descriptor", other < 0 ? -1 : syscall(SYS_pidfd_send_signal, other, 0, NULL, 0));
  tried("trace another process", ptrace(PTRACE_ATTACH, process, 0, 0));
  tried("read another process's memory", process_vm_readv(process, &here, 1, &there, 1, 0));
  tried("limits of another process", prlimit(process, RLIMIT_CORE, &most, NULL));
  tried("priority of another process", setpriority(PRIO_PROCESS, process, 19));
  if (!gently) tried("priority of a person's processes", setpriority(PRIO_USER, 0, 19));
  tried("cores of another process", sched_setaffinity(process, 0, NULL));
  tried("connect over the network", reach_port(atoi(given[5])));
  tried("listen on the network", socket(AF_INET6, SOCK_DGRAM, 0));
  tried("packets", socket(AF_PACKET, SOCK_RAW, 0));
  tried("kernel's own sockets", socket(AF_NETLINK, SOCK_RAW, 0));
  tried("socket by path", reach(given[3], 0));
  tried("socket by name", reach(given[4], 1));
  tried("rings", syscall(SYS_io_uring_setup, 4, calloc(1, 256)));
  tried("start a process", fork_raw());
  if (!gently) tried("start a process with clone3", syscall(SYS_clone3, NULL, 0));
  if (!gently) tried("a user namespace", unshare(CLONE_NEWUSER));
  if (!gently) tried("a thread with a namespace", syscall(SYS_clone, CLONE_THREAD | CLONE_VM | CLONE_SIGHAND | CLONE_NEWNET, 0, 0, 0, 0));
  tried("enter a namespace", syscall(SYS_setns, 0, 0));
  if (!gently) tried("mount", mount("x", "/tmp", "tmpfs", 0, NULL));
  if (!gently) tried("change root", chroot("/tmp"));
  if (!gently) tried("become another user", setuid(12345));
  tried("keys", syscall(SYS_add_key, "user", "probe", "x", 1, -1));
  tried("programs in the kernel", syscall(SYS_bpf, 0, NULL, 0));
  tried("counters", syscall(SYS_perf_event_open, NULL, 0, -1, -1, 0));
  tried("page faults", syscall(SYS_userfaultfd, 0));
  tried("open by handle", syscall(SYS_open_by_handle_at, 0, NULL, 0));
  tried("a call that is not there yet", syscall(9999));
  if (!gently) tried("fill the folder", fill(given[6]));
  printf("end\n");
  return 0;
}
