#! target 3.1
#! run
def kinds(names)
  found = [] #! held: has found
  names.each { |name| found << $1 if name =~ /^(\w+)-/ }
  found
end

def rests(names)
  rest = {} #! held: has found
  names.each do |name|
    rest[name] = $' if name =~ /-/
  end
  rest
end

def sizes(names)
  names.each { |name| return false unless name =~ /^(\w)/ && $1 == "o" } #! likely ruby/any-or-all
  true
end

puts kinds(%w[oak-1 ash-2]).inspect
puts rests(%w[oak-1 ash-2]).inspect
puts sizes(%w[oak-1 old])
